# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a track away, and every envelope that moves it from elsewhere. What sounded into a group sounds into what the group did.
    module RemoveTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        raise InvalidInput.of("needed", "/track_id", "#{track.name} is the #{track.kind}; it stays.") if %w[master return].include?(track.kind)

        tracks = song.tracks.reject { |other| other.equal?(track) }.map { |other| other.output == track.id ? other.with(output: track.output) : other }
        clips = song.clips.transform_values { |clip| without(clip, track) }
        [song.with(tracks:, clips:), "remove track #{track.name}"]
      end

      def self.without(clip, track)
        rest = clip.envelopes.reject { |envelope| envelope.target.track_id == track.id }
        rest.size == clip.envelopes.size ? clip : clip.with(envelopes: rest)
      end
      private_class_method :without
    end
  end
end
