# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes away what drives a parameter (`target`); its own resting value comes back.
    module RemoveDrive
      def self.call(song, input)
        target = InvalidInput.under("/target") { Address.parse(input[:target]) }
        if song.directory.drivers(target).empty?
          raise InvalidInput.of("not_driven", "/target",
                                "Nothing drives #{song.parameter_name(target)}.")
        end

        [Macros.freed(song, target), "drive #{Macros.words(song, target)} no more"]
      end
    end
  end
end
