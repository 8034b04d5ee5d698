# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves the ends of notes, or their starts while their ends stay.
    module StretchNotes
      def self.call(song, input)
        edge, ticks = input.fetch(:edge, "end"), input[:ticks]
        next_song, words = Noting.change(song, input) do |notes|
          notes.map { |note| edge == "end" ? ended(note, ticks) : started(note, ticks) }
        end
        [next_song, "stretch #{words}"]
      end

      def self.ended(note, ticks) = note.with(length_ticks: [note.length_ticks + ticks, Notes::SHORTEST_TICKS].max)

      def self.started(note, ticks)
        finish = note.tick + note.length_ticks
        tick = (note.tick + ticks).clamp(0, [finish - Notes::SHORTEST_TICKS, 0].max)
        note.with(tick:, length_ticks: finish - tick)
      end
      private_class_method :ended, :started
    end
  end
end
