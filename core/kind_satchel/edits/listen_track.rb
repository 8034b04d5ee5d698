# frozen_string_literal: true

module KindSatchel
  module Edits
    # Mutes or soloes a track for listening. This is not the mute of its channel: no envelope moves it (see {Song#silent}).
    module ListenTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        solo!(track) if input[:soloed]

        changes = input.slice(:muted, :soloed)
        raise InvalidInput.of("nothing_asked", "", "Say whether the track is muted or soloed.") if changes.empty?

        [song.with_track(track.with(**changes)), "#{words(changes)} #{track.name}"]
      end

      def self.solo!(track)
        return unless %w[return master].include?(track.kind)

        raise InvalidInput.of("no_solo", "/soloed", "#{track.name} is a #{track.kind}; tracks and groups are soloed.")
      end

      def self.words(changes)
        changes.map { |key, on| { muted: %w[unmute mute], soloed: %w[unsolo solo] }.fetch(key)[on ? 1 : 0] }.join(" and ")
      end
      private_class_method :solo!, :words
    end
  end
end
