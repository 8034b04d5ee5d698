# frozen_string_literal: true

module KindSatchel
  module Edits
    # Copies all moves of a clip to another clip, or the lanes of a track to another track, matched by parameter. What
    # stands there for the same parameter is replaced.
    module CopyMoves
      def self.call(song, input)
        table = Transfer::MovesTable.new(song, *places(song, input))
        source, goal = places(song, input)
        left = table.rows.reject(&:target)
        words = "copy #{PlainText.count(table.rows.size - left.size, 'move')} of #{source.name} to #{goal.name}"
        [table.copied, words, unmatched(left)]
      end

      # @return [Array<Notice>] what has no place there
      def self.unmatched(left)
        return [] if left.empty?

        words = "#{PlainText.count(left.size, 'move')} found no match"
        [Notice.new("unmatched", left.map { |row| row.envelope.id }, words)]
      end

      # The two clips, or the two tracks.
      # @raise [InvalidInput] unless both are of one sort
      def self.places(song, input)
        clips = input.values_at(:from_clip_id, :to_clip_id).compact
        tracks = input.values_at(:from_track_id, :to_track_id).compact
        if clips.size == 2 && tracks.empty?
          return [song.clip(clips[0]), InvalidInput.under("/to_clip_id") { song.clip(clips[1]) }]
        end
        if tracks.size == 2 && clips.empty?
          return [song.track(tracks[0]), InvalidInput.under("/to_track_id") { song.track(tracks[1]) }]
        end

        raise InvalidInput.of("bad_request", "", "Say from which clip to which, or from which track to which.")
      end
    end
  end
end
