# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets every note sound until the next of them begins; those that begin last stay as they are.
    module LegatoNotes
      def self.call(song, input)
        next_song, words = Noting.change(song, input) { |notes| joined(notes) }
        [next_song, "join #{words}"]
      end

      def self.joined(notes)
        starts = notes.map(&:tick).uniq.sort
        notes.map do |note|
          following = starts.find { |tick| tick > note.tick }
          following ? note.with(length_ticks: following - note.tick) : note
        end
      end
      private_class_method :joined
    end
  end
end
