# frozen_string_literal: true

module KindSatchel
  module Edits
    # Fits a carrier clip to a stretch of the song: clip and region get its length, and the moves are stretched along.
    # Other regions that share the clip keep it as it was.
    module FitCarrier
      def self.call(song, input)
        placed = Regions.named(song, [input[:region_id]], "").first
        clip = song.clip(placed.region.clip_id)
        start, finish = input.values_at(:start_tick, :end_tick)
        check(clip, start, finish)
        song, clip, notices = own(song, clip, placed)
        fitted = fitted(clip, finish - start)
        region = placed.region.with(clip_id: clip.id, start_tick: start, length_ticks: finish - start, offset_ticks: 0,
                                    span_ticks: finish - start,
                                    phases: Region::NO_PHASES)
        next_song = Placing.drop(song.with_clip(fitted), song.track(placed.track.id), region)
        [next_song, "fit #{clip.name} to #{song.meters.text(start)} - #{song.meters.text(finish)}", notices]
      end

      def self.check(clip, start, finish)
        raise InvalidInput.of("too_short", "/end_tick", "A stretch ends after it starts.") unless finish > start
        return if clip.carrier?

        raise InvalidInput.of("not_a_carrier", "/region_id",
                              "#{clip.name} has material of its own length; only carrier clips are fitted.")
      end

      def self.own(song, clip, _placed)
        return [song, clip, []] if song.directory.regions_of_clip(clip.id).size < 2

        copy, song = Transfer::Clips.own_copy(song, clip)
        [song, copy, [LayOut.separated([clip])]]
      end

      def self.fitted(clip, length)
        pace = Rational(length, clip.length_ticks)
        envelopes = clip.envelopes.map do |envelope|
          own = envelope.own_length_ticks
          envelope.with(points: envelope.points.map { |point| point.with(tick: (point.tick * pace).round) },
                        own_length_ticks: own && [(own * pace).round, Clip::SHORTEST_TICKS].max)
        end
        clip.with(length_ticks: length, envelopes:)
      end
      private_class_method :check, :own, :fitted
    end
  end
end
