# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Opens, closes and fills stretches of the whole song: regions, lanes (that of the tempo too), time signatures and
    # the range that repeats. A signature begins with a bar: where a cut falls inside one, what follows keeps its
    # place and the signature waits for the next bar. Outside the stretches nothing heard changes.
    class SongTime
      # The song without a stretch; what lies behind moves up.
      def self.closed(song, from, to) = new(song).closed(from, to)

      # The song with room made at a tick, where the values come to hold, the tempo too.
      # @example
      #   SongTime.opened(song, 3840, 3840).length_ticks - song.length_ticks #=> 3840
      def self.opened(song, tick, length) = new(song).opened(tick, length)

      # The song with room made for a {SongStretch}, and that in it. Its signatures are put in at once, so that they
      # are rounded to bars once.
      def self.inserted(song, stretch, tick)
        filled = filled(opened(song, tick, stretch.length_ticks), stretch, tick)
        if stretch.meters.empty?
          filled
        else
          filled.with(meters: song.meters.spliced(tick, tick, stretch.meters,
                                                  later: stretch.length_ticks))
        end
      end

      # The song with a {SongStretch} in place of what lies there.
      def self.filled(song, stretch, tick) = new(song).filled(stretch, tick)

      def initialize(song)
        @song = song
        @next_id = song.next_id
      end

      # @return [Song] without the time between two ticks
      def closed(from, to)
        range = moved_range { |tick| tick <= from ? tick : [tick + from - to, from].max }
        later = change(meters: metered(from, to, [], from - to), range:, markers: closed_markers(from, to)) do |track|
          kept = split(split(track.regions, from), to).reject do |region|
            region.start_tick >= from && region.end_tick <= to
          end
          [kept.map { |region| later(region, to, from - to) },
           lanes(track, Restarts.closed(@song, from, to)) do |points|
             Splice.replace(points, from, to, [], later: from - to)
           end]
        end
        Phases.kept(@song, later, to, from - to)
      end

      # @return [Song] with so many ticks of nothing put in
      def opened(tick, length)
        range = moved_range { |at| at > tick || (at == tick && tick == @song.range.start_tick) ? at + length : at }
        meters = @song.meters.spliced(tick, tick, [], later: length)
        later = change(meters:, range:, markers: marked(@song.markers) do |at|
          at >= tick ? at + length : at
        end) do |track|
          [split(track.regions, tick).map { |region| later(region, tick, length) },
           lanes(track, Restarts.opened(@song, tick, length)) { |points| held(points, tick, length) }]
        end
        Phases.kept(@song, later, tick, length)
      end

      # @return [Song] with the stretch put in
      def filled(stretch, tick)
        to = tick + stretch.length_ticks
        known!(stretch)
        with_lanes = stretch.lanes.reduce(@song) { |now, (role, address, _)| Lanes.with_lane(now, address, role) }
        @song, @next_id = with_lanes, with_lanes.next_id
        change(meters: metered(tick, to, stretch.meters, 0), markers: filled_markers(stretch, tick, to)) do |track|
          kept = split(split(track.regions, tick), to).reject do |region|
            region.start_tick >= tick && region.end_tick <= to
          end
          [(kept + placed(stretch, track, tick)).sort_by(&:start_tick), filled_lanes(stretch, track, tick, to)]
        end
      end

      private

      def change(**head)
        tracks = @song.tracks.map do |track|
          regions, lanes = yield track
          track.with(regions:, lanes:)
        end
        @song.with(**head, tracks:, next_id: @next_id)
      end

      # Time signatures with a stretch of them replaced. A stretch cut out before songs had several brings none.
      def metered(from, to, meters, later)
        meters.empty? && later.zero? ? @song.meters : @song.meters.spliced(from, to, meters, later:)
      end

      def closed_markers(from, to)
        marked(@song.markers.reject { |one| one.tick >= from && one.tick < to }) { |at| at >= to ? at + from - to : at }
      end

      # Markers at other places, in order, one to a place: of two the one that was there before stays.
      def marked(markers)
        markers.map { |one| one.with(tick: yield(one.tick)) }.uniq(&:tick).sort_by(&:tick)
      end

      def filled_markers(stretch, from, to)
        others = @song.markers.reject { |one| one.tick >= from && one.tick < to }
        added = stretch.markers.map { |tick, name| Marker.new(id: new_id("marker"), tick: tick + from, name:) }
        (others + added).sort_by(&:tick)
      end

      def split(regions, tick)
        regions.flat_map do |region|
          region.start_tick < tick && region.end_tick > tick ? region.split(tick, new_id) : [region]
        end
      end

      def new_id(word = "region")
        @next_id += 1
        "#{word}-#{@next_id - 1}"
      end

      def later(region, from, ticks)
        region.start_tick >= from ? region.with(start_tick: region.start_tick + ticks) : region
      end

      # What follows something goes on doing so: it was not edited by hand. Waves go on after the stretch as they did.
      def lanes(track, restarts)
        track.lanes.map do |lane|
          next restarts.on(lane) if lane.lfo?
          next lane if lane.points.empty?

          points = yield lane.points
          if lane.followed?
            lane.with(points:,
                      source: lane.source.with(made: Sources::Followed.digest(points)))
          else
            lane.with(points:)
          end
        end
      end

      def held(points, tick, length)
        left, right = Splice.split(points, tick)
        right = right.map { |point| point.with(tick: point.tick + length) }
        if tick.zero? || left.empty?
          right
        else
          Splice.join([*left[0..-2], left.last.with(shape: Shapes::Hold::PLAIN)],
                      right)
        end
      end

      def placed(stretch, track, tick)
        stretch.regions.filter_map do |id, region|
          region.with(id: new_id, start_tick: region.start_tick + tick) if id == track.id
        end
      end

      def filled_lanes(stretch, track, from, to)
        known = stretch.lanes.to_h { |role, address, points| [[address, role], points] }
        track.lanes.map do |lane|
          points = known[[lane.target, lane.role]]
          next lane unless points&.any?

          lane.with(points: Splice.replace(lane.points, from, to, points.map do |point|
            point.with(tick: point.tick + from)
          end))
        end
      end

      # The range that repeats moves along; it never becomes nothing.
      def moved_range(&)
        start, finish = [@song.range.start_tick, @song.range.end_tick].map(&)
        finish > start ? @song.range.with(start_tick: start, end_tick: finish) : @song.range
      end

      def known!(stretch)
        faults = stretch.regions.each_with_index.filter_map do |(id, region), i|
          unknown(id, region, "/stretch/regions/#{i}")
        end
        faults += stretch.lanes.each_with_index.filter_map do |(_, address, _), i|
          lost(address, "/stretch/lanes/#{i}/target")
        end
        raise NotFound, faults unless faults.empty?
      end

      def unknown(track_id, region, path)
        track, clip = @song.directory.tracks[track_id], @song.clips[region.clip_id]
        return if track && clip && track.fits?(clip)

        Fault.new("no_place", path,
                  "There is no track #{track_id.inspect} that could take clip #{region.clip_id.inspect}.")
      end

      def lost(address, path)
        Fault.new("unknown_parameter", path, "There is no #{address} in this song.") unless @song.parameter?(address)
      end
    end
  end
end
