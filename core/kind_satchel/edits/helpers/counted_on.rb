# frozen_string_literal: true

module KindSatchel
  module Edits
    # Regions of a clip that follow one another on a track without a gap, counted on: the later ones begin so many
    # whole loops further, so that a move with a length of its own goes on where the one before left it. Their
    # material and all moves of each loop stay as they are; where the clip has a move that would sound otherwise
    # then, all are left as they are.
    class CountedOn
      attr_reader :song

      # @param envelope_id [String] of the move that goes over all repeats
      # @param pass [Integer] how long one of them is, in ticks
      # @param count [Integer]
      def initialize(song, clip_id, envelope_id, pass, count)
        @song, @clip_id, @envelope_id, @pass, @count = song, clip_id, envelope_id, pass, count
        @clip = song.clip(clip_id)
        @song = song.with(tracks: song.tracks.map { |track| counted(track) }) if movable?
      end

      # How many of the repeats are heard, and where.
      # @return [Notice]
      def tell
        places = {}
        @song.directory.regions_of_clip(@clip_id).map(&:region).reject(&:muted).sort_by(&:start_tick).each do |region|
          hear(region, places)
        end
        some = places.size == @count ? "all" : "#{places.size} of the"
        heard = "#{some} #{@count} loops #{places.size == 1 ? 'is' : 'are'} heard"
        nowhere = "the clip lies nowhere yet, so none of them is heard"
        Notice.new("loops_heard", [@envelope_id], places.empty? ? nowhere : "#{heard}, #{where(places)}")
      end

      private

      # Whether all that the clip holds besides sounds the same whole loops later.
      def movable?
        @clip.envelopes.all? do |one|
          one.id == @envelope_id || one.clock == "each_loop" ||
            (one.clock == "own_length" && (@clip.length_ticks % one.own_length_ticks).zero?)
        end
      end

      def counted(track)
        before = nil
        regions = track.regions.map do |region|
          next region.tap { before = nil } unless region.clip_id == @clip_id && region.looped

          goes_on = before && before.clip_id == @clip_id && before.looped && before.end_tick == region.start_tick
          before = goes_on ? region.onward(on(before, region) - region.offset_ticks) : region
        end
        regions == track.regions ? track : track.with(regions:)
      end

      # The first whole loop at or past where the one before comes to.
      def on(before, region)
        left = before.offset_ticks + before.length_ticks - region.offset_ticks
        region.offset_ticks + ([left.fdiv(@clip.length_ticks).ceil, 0].max * @clip.length_ticks)
      end

      def hear(region, places)
        first, last = region.offset_ticks / @pass, (region.offset_ticks + region.length_ticks - 1) / @pass
        (first..[last, first + @count - 1].min).each do |loop|
          places[loop % @count] ||= region.start_tick + [(loop * @pass) - region.offset_ticks, 0].max
        end
      end

      def where(places)
        meters = @song.meters
        first, last = places.values.minmax
        return "at #{meters.text(first)}" if first == last

        "the first at #{meters.text(first)}, the last at #{meters.text(last)}"
      end
    end
  end
end
