# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves notes in time and pitch, or a copy of them. All go by the same, as far as the clip's start and the pitches
    # allow.
    module MoveNotes
      def self.call(song, input)
        ticks, steps, copy = input.fetch(:ticks, 0), input.fetch(:steps, 0), input.fetch(:copy, false)
        next_song, words = Noting.change(song, input, copy:) { |notes| moved(notes, ticks, steps) }
        [next_song, "#{copy ? 'copy' : verb(ticks, steps)} #{words}"]
      end

      def self.moved(notes, ticks, steps)
        ticks = [ticks, -notes.map(&:tick).min].max
        low, high = notes.map(&:pitch).minmax
        steps = steps.clamp(-low, 127 - high)
        notes.map { |note| note.with(tick: note.tick + ticks, pitch: note.pitch + steps) }
      end

      def self.verb(ticks, steps) = ticks.zero? && !steps.zero? ? "transpose" : "move"
      private_class_method :moved, :verb
    end
  end
end
