# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives the song another name.
    module RenameSong
      def self.call(song, input)
        name = input[:name].strip
        [song.with(name:), "rename the song to #{name}"]
      end
    end
  end
end
