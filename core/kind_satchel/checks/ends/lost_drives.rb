# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Drives of what is not there.
      module LostDrives
        module_function

        def title = "A drive to nothing"
        def meaning = "What the macro drives is not there; it waits."

        def find(song, _outside)
          song.directory.driven.reject { |target| song.parameter?(target) }.map { |target| [target.to_s] }
        end

        def tell(song, key)
          macro = song.directory.driver(Address.parse(key)).macro
          target = Address.parse(key)
          End.new("#{Words.parameter(song, macro)} drives #{song.parameter_name(target)}: " \
                  "#{Words.gone(song, target)}.", { "address" => macro.to_s },
                  [Fix.new("Drive it no more", "remove_drive", { "target" => key })])
        end
      end
    end
  end
end
