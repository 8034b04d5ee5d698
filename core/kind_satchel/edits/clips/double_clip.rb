# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a clip twice as long by writing its material and its moves that repeat with it twice: nothing heard
    # changes, and the second half can be made another.
    module DoubleClip
      def self.call(song, input)
        clip = Noting.clip!(song, input)
        length = clip.length_ticks
        notes = clip.notes.select { |note| note.tick < length }
        later = notes.map { |note| note.with(tick: note.tick + length) }
        ended = notes.map { |note| note.with(length_ticks: [note.length_ticks, length - note.tick].min) }
        envelopes = clip.envelopes.map { |envelope| twice(envelope, length) }
        [song.with_clip(clip.with(length_ticks: 2 * length, notes: Notes.in_order(ended + later), envelopes:)),
         "double #{clip.name}"]
      end

      # A move that begins with each loop is written twice; others have a time of their own.
      def self.twice(envelope, length)
        return envelope unless envelope.clock == "each_loop" && envelope.points.any?

        points = Splice.between(envelope.points, 0, length)
        later = points.map { |point| point.with(tick: point.tick + length) }
        envelope.with(points: points + later)
      end
      private_class_method :twice
    end
  end
end
