# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a carrier clip, which holds nothing but envelopes for any parameters of the song, and places it on a
    # track. Without a track it comes to the last carrier track that is free there, or to one that is made for it.
    module MakeCarrier
      HUE = "walnut"

      def self.call(song, input)
        start, length = input.values_at(:start_tick, :length_ticks)
        song, track = track_for(song, input[:track_id], start, start + length)
        unless track.holds_regions?
          raise InvalidInput.of("no_regions_here", "/track_id",
                                "#{track.name} holds no regions.")
        end

        clip = clip(song, input.fetch(:name, "Carrier"), length)
        region = Region.fresh(id: "region-#{song.next_id + 1}", clip_id: clip.id, start_tick: start,
                              length_ticks: length)
        before = song.with(next_id: song.next_id + 2).with_clip(clip)
        next_song = Placing.drop(before, before.track(track.id), region)
        [next_song, "make a carrier clip at #{song.meters.text(start)}",
         Placing.cuts(before, next_song.with_track(without(next_song.track(track.id), region)))]
      end

      def self.clip(song, name, length_ticks)
        name = Transfer::Clips.free_name(song.clips.each_value.map(&:name), name)
        Clip.new(id: "clip-#{song.next_id}", name:, kind: "carrier", length_ticks:, notes: [], audio: nil,
                 envelopes: [])
      end

      def self.track_for(song, track_id, from, to)
        return [song, InvalidInput.under("/track_id") { song.track(track_id) }] if track_id

        free = song.tracks.reverse.find { |track| track.kind == "carrier" && track.regions_in(from, to).empty? }
        free ? [song, free] : with_track(song)
      end

      # Carrier tracks stand under the tracks with material: what acts later stands lower.
      def self.with_track(song)
        name = Transfer::Clips.free_name(song.tracks.map(&:name), "Carriers")
        track = Track.new(id: "track-#{song.next_id}", name:, kind: "carrier", hue: HUE, output: song.tracks.last.id,
                          devices: [], lanes: [], regions: [])
        place = (song.tracks.rindex(&:holds_regions?) || -1) + 1
        [song.with(next_id: song.next_id + 1, tracks: song.tracks.dup.insert(place, track)), track]
      end

      def self.without(track, region) = track.with(regions: track.regions.reject { |other| other.id == region.id })
      private_class_method :clip, :track_for, :with_track, :without
    end
  end
end
