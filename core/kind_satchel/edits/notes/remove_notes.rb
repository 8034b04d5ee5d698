# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes notes out of a clip.
    module RemoveNotes
      def self.call(song, input)
        next_song, words = Noting.change(song, input) { [] }
        [next_song, "remove #{words}"]
      end
    end
  end
end
