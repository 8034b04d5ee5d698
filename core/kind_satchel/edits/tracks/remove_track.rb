# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a track away with its lanes and regions. Envelopes elsewhere that move it stay, as loose ends that do
    # nothing, and so do those of sends to a return. What went to a group goes to what the group did.
    module RemoveTrack
      def self.call(song, input)
        track = song.track(input[:track_id])
        raise InvalidInput.of("needed", "/track_id", "#{track.name} is the master; it stays.") if track.kind == "master"

        rest = song.tracks.reject { |other| other.equal?(track) }
        tracks = rest.map { |other| other.output == track.id ? other.with(output: track.output) : other }
        [song.with(tracks:), "remove track #{track.name}", [*along(track), *sent(song, track), *loose(song, track)]]
      end

      # What goes along with it.
      def self.along(track)
        parts = [[track.regions.size, "region"], [track.lanes.size, "lane"]].reject { |count, _| count.zero? }
        return [] if parts.empty?

        [Notice.new("along", [track.id], "#{parts.map do |count, word|
          PlainText.count(count, word)
        end.join(' and ')} go along")]
      end

      # Sends that lead to a return, by their level or by what moves it.
      def self.sent(song, track)
        return [] unless track.kind == "return"

        id = Devices::SEND_PREFIX + track.id
        senders = song.tracks.select do |other|
          other.sounds_itself? && (other.channel.values.fetch(id, 0).positive? || moved?(song, other, id))
        end
        return [] if senders.empty?

        [Notice.new("sent", senders.map(&:id),
                    "#{senders.map(&:name).first(3).join(', ')} #{senders.size == 1 ? 'sends' : 'send'} to it no more")]
      end

      def self.moved?(song, track, id)
        song.automated.any? { |address| address.owner_id == track.id && address.parameter_id == id }
      end

      def self.loose(song, track)
        homes = song.directory.envelopes.each_value.select do |home|
          target = home.envelope.target
          home.track != track && (target.owner_id == track.id || target.parameter_id == Devices::SEND_PREFIX + track.id)
        end
        clips = homes.filter_map(&:clip).uniq(&:id).reject { |clip| clip_only_here?(song, clip, track) }
        return [] if clips.empty?

        [Notice.new("loose", clips.map(&:id),
                    "what #{clips.map(&:name).first(3).join(', ')} did to #{track.name} waits as a loose end")]
      end

      def self.clip_only_here?(song, clip, track)
        song.directory.regions_of_clip(clip.id).all? { |placed| placed.track.equal?(track) }
      end
      private_class_method :along, :sent, :moved?, :loose, :clip_only_here?
    end
  end
end
