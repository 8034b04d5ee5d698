# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a track away with its lanes and regions. Envelopes elsewhere that move it stay, as loose ends that do nothing. What went
    # to a group goes to what the group did.
    module RemoveTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        raise InvalidInput.of("needed", "/track_id", "#{track.name} is the #{track.kind}; it stays.") if %w[master return].include?(track.kind)

        tracks = song.tracks.reject { |other| other.equal?(track) }.map { |other| other.output == track.id ? other.with(output: track.output) : other }
        [song.with(tracks:), "remove track #{track.name}", loose(song, track)]
      end

      def self.loose(song, track)
        clips = song.clips.each_value.select { |clip| clip.carrier? && clip.envelopes.any? { |envelope| envelope.target.track_id == track.id } }
        return [] if clips.empty?

        [Tell.new("loose", clips.map(&:id), "what #{clips.map(&:name).first(3).join(', ')} did to #{track.name} waits as a loose end")]
      end
      private_class_method :loose
    end
  end
end
