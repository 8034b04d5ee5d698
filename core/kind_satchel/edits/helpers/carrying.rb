# frozen_string_literal: true

module KindSatchel
  module Edits
    # Carries regions to other places, or copies of them: the clips go along (see {Transfer::Clips}), lane points too
    # where the song says so, and what lies under them is trimmed, split or taken away.
    class Carrying
      # @param song [Song]
      # @param region_ids [Array<String>]
      # @param ticks [Integer] by which they move
      # @param track_steps [Integer] by how many tracks that hold regions, downwards
      # @param copy [Boolean] whether the regions stay where they are and others are placed
      # @raise [InvalidInput] for a place before the start, or a track that is not there or of another kind
      # @raise [NotFound]
      def initialize(song, region_ids:, ticks:, track_steps: 0, copy: false)
        @song = song
        @ticks = ticks
        @steps = track_steps
        @copy = copy
        @placed = Regions.named(song, region_ids)
        check
      end

      # @return [Array(Song, Array<String>)] the next song, and what comes with it
      def carried
        lanes = lanes_above
        travelling = Transfer::Clips.new(@song)
        regions = @placed.map { |placed| [placed, placed_anew(placed, travelling)] }
        lifted = @copy ? travelling.song : without(Transfer::Lanes.lift(travelling.song, lanes.values.flatten))
        dropped = drop(lifted, regions)
        lanes.each { |placed, list| dropped = lay(dropped, placed, list) }
        [dropped, notices(travelling, lifted, dropped)]
      end

      # @param names [Array<String>] of parameters
      # @return [Notice]
      def self.lost(names)
        Notice.new("lost", [], "#{names.join(', ')} #{names.size == 1 ? 'has' : 'have'} no place there and will be off")
      end

      # Where the first of them comes to lie.
      def start_tick = @placed.map { |placed| placed.region.start_tick }.min + @ticks

      private

      # @return [Hash{Placed => Array}] what stands on lanes above the regions, where points follow them
      def lanes_above
        return {} unless @song.points_follow

        @placed.to_h { |placed| [placed, Transfer::Lanes.above(placed.track, placed.region)] }
      end

      def check
        if start_tick.negative?
          raise InvalidInput.of("out_of_range", "/ticks",
                                "A region cannot start before the song does.")
        end

        faults = @placed.each_with_index.filter_map { |placed, i| misfit(placed, "/region_ids/#{i}") }
        raise InvalidInput, faults unless faults.empty?
      end

      def misfit(placed, path)
        clip, track = @song.clip(placed.region.clip_id), goal(placed)
        return Fault.new("no_track", "/track_steps", "There is no track to take #{clip.name}.") unless track
        return if track.fits?(clip)

        Fault.new("wrong_kind", path, "#{track.name} takes no clip of #{clip.kind}, and #{clip.name} is one.")
      end

      def rows = @rows ||= @song.tracks.select(&:holds_regions?)

      # The track a region comes to.
      def goal(placed)
        place = rows.index(placed.track) + @steps
        rows[place] if place >= 0
      end

      def placed_anew(placed, travelling)
        clip_id = travelling.on(placed.region.clip_id, placed.track, goal(placed), alone: alone?(placed))
        placed.region.onto(@song.clip(placed.region.clip_id),
                           travelling.song.clip(clip_id)).with(start_tick: placed.region.start_tick + @ticks)
      end

      # Whether no region of the clip stays behind, and all come to one track.
      def alone?(placed)
        sharers = @song.directory.regions_of_clip(placed.region.clip_id)
        !@copy && sharers.all? { |other| moved?(other.region) } && sharers.map { |other| other.track.id }.uniq.size == 1
      end

      def moved?(region) = (@moved ||= @placed.to_h { |placed| [placed.region.id, true] }).key?(region.id)

      def without(song)
        @placed.map { |placed| placed.track.id }.uniq.reduce(song) do |now, id|
          track = now.track(id)
          now.with_track(track.with(regions: track.regions.reject { |region| moved?(region) }))
        end
      end

      def drop(song, regions)
        regions.group_by { |placed, _| goal(placed).id }.reduce(song) do |now, (track_id, pairs)|
          list = pairs.map(&:last)
          list, now = named(list, now.next_id), now.with(next_id: now.next_id + list.size) if @copy
          Placing.drop(now, now.track(track_id), *list)
        end
      end

      def named(list, next_id) = list.each_with_index.map { |region, i| region.with(id: "region-#{next_id + i}") }

      def lay(song, placed, stretches)
        Transfer::Lanes.lay(song, stretches, Transfer::Match.new(@song, placed.track, goal(placed)), @ticks)
      end

      def notices(travelling, before, after)
        [*along(travelling), *Placing.cuts(before, after)]
      end

      def along(travelling)
        list = []
        list << Notice.new("along", [], found_words(travelling.found)) if travelling.found.any?
        list << Carrying.lost(travelling.lost) if travelling.lost.any?
        list << LayOut.separated(travelling.separated) if travelling.separated.any?
        list << Notice.new("follow", [], "lane points follow") if @song.points_follow
        list
      end

      def found_words(names)
        "#{names.first(4).join(', ')}#{' and more' if names.size > 4} #{names.size == 1 ? 'goes' : 'go'} along"
      end
    end
  end
end
