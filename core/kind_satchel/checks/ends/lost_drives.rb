# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Drives of what is not there.
      module LostDrives
        module_function

        def title = "A drive to nothing"
        def meaning = "What the macro drives is not there; it waits."

        def of(song)
          song.directory.driven.reject { |target| song.parameter?(target) }.map do |target|
            macro = song.directory.driver(target).macro
            End.new(nil, target.to_s, "#{Words.parameter(song, macro)} drives #{target}, which is missing.", { "address" => macro.to_s },
                    [Fix.new("Drive it no more", "remove_drive", { "target" => target.to_s })])
          end
        end
      end
    end
  end
end
