# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Macros that something moves, and that drive nothing.
      module IdleMacros
        module_function

        def title = "A macro that drives nothing"
        def meaning = "Something moves it, and nothing comes of it."

        def find(song, _outside)
          strips = song.tracks.flat_map do |track|
            track.devices.select do |device|
              device.type_rules.role == "macros"
            end.map { |device| [track.id, device.id] }
          end
          return [] if strips.empty?

          moved = song.automated.select { |address| strips.include?([address.owner_id, address.device_id]) }
          moved.select { |address| song.directory.drives_of(address).empty? }.map { |address| [address.to_s] }
        end

        def tell(song, key)
          End.new("#{Words.parameter(song, Address.parse(key))} is moved, and drives nothing.", { "address" => key },
                  [])
        end
      end
    end
  end
end
