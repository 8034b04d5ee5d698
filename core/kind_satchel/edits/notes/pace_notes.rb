# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes notes go twice as fast, or half as fast, or by any other pace, from the first of them on.
    module PaceNotes
      def self.call(song, input)
        pace = input[:pace]
        next_song, words = Noting.change(song, input) { |notes| paced(notes, pace) }
        [next_song, "#{pace > 1 ? 'speed up' : 'slow down'} #{words}"]
      end

      def self.paced(notes, pace)
        first = notes.map(&:tick).min
        notes.map do |note|
          note.with(tick: first + ((note.tick - first) / pace).round,
                    length_ticks: [(note.length_ticks / pace).round, Notes::SHORTEST_TICKS].max)
        end
      end
      private_class_method :paced
    end
  end
end
