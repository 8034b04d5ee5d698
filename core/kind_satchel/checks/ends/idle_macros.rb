# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Macros that something moves, and that drive nothing.
      module IdleMacros
        module_function

        def title = "A macro that drives nothing"
        def meaning = "Something moves it, and nothing comes of it."

        def of(song)
          song.automated.select { |address| macro?(song, address) && song.directory.drives_of(address).empty? }.map do |address|
            End.new(nil, address.to_s, "#{Words.parameter(song, address)} is moved, and drives nothing.", { "address" => address.to_s }, [])
          end
        end

        def macro?(song, address)
          !address.setting? && !address.song? && address.clip_id.nil? && song.track(address.owner_id).device(address.device_id).type_rules.role == "macros"
        end
        private_class_method :macro?
      end
    end
  end
end
