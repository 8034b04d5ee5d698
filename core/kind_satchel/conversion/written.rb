# frozen_string_literal: true

module KindSatchel
  module Conversion
    # The points of an envelope in song time, its limits taken in, shapes and all. Points lie on whole ticks: a
    # stretched clock may move one by less than a tick.
    module Written
      module_function

      # What a clip envelope gives in a region.
      # @param region [Region]
      # @return [Array<Point>] in song ticks, the first where the region starts, the last where it ends
      def in_region(song, region, clip, envelope)
        live = Heard::LiveMove.of(song, envelope, region)
        lists = []
        Clocks.each_run(region, clip, envelope, region.start_tick, region.end_tick) do |run|
          lists << (live ? of_live(live, run) : shifted(in_run(envelope, run), run.from))
        end
        Splice.chain(lists)
      end

      # What a lane gives.
      # @return [Array<Point>] in song ticks
      def on_track(song, lane)
        live = Heard::LiveMove.of(song, lane)
        return of_live(live, Clocks::Run.new(0, 0, song.length_ticks)) if live

        lane.lfo? ? lane.source.points(lane, 0, song.length_ticks) : lane.full_points
      end

      # How far lines may stray where settings of a move are moved, as a share of the travel.
      STRAY = 0.0005

      # What a move gives whose settings are moved: levels are held, all else are lines.
      def of_live(live, run)
        of_arcs(live.enum_for(:each_arc, run, nil), live.allowed) { |tick, value| [tick.round, value] }
      end

      # @param arcs [Enumerable<Heard::Arc>]
      # @param allowed [Range] of values
      # @yieldreturn [Array(Integer, Float)] the tick and the value of a point
      # @return [Array<Point>]
      def of_arcs(arcs, allowed, stray = STRAY, &place)
        Splice.chain(arcs.filter_map do |arc|
          shape = arc.still? ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN
          inner = arc.breaks(arc.from, arc.to, 1.0, stray).map(&:round).uniq.select do |tick|
            tick > arc.from && tick < arc.to
          end
          points = [arc.from, *inner, arc.to].map { |tick| place.call(tick, arc.at(tick)) }
          if points.last[0] > points.first[0]
            points.map { |tick, value| Point.new(tick:, value: value.clamp(allowed), shape:) }
          end
        end)
      end

      # From tick 0, the start of the run.
      def in_run(envelope, run)
        places = [run.from - run.zero, run.to - run.zero]
        return envelope.source.points(envelope, *places) unless run.pace
        return Splice.between(paced(envelope.full_points, run.pace), *places) unless envelope.lfo?

        from, to = places.map { |place| (place * run.pace).round }
        length = places[1] - places[0]
        points = paced(envelope.source.points(envelope, from, [to, from + 1].max), run.pace)
        points.map { |point| point.tick > length || point.equal?(points.last) ? point.with(tick: length) : point }
      end

      # @return [Array<Point>] so many ticks later
      def shifted(points, ticks) = ticks.zero? ? points : points.map { |point| point.with(tick: point.tick + ticks) }

      # Cycles locked to a note length keep their count when time is stretched.
      def paced(points, pace)
        points.each_with_index.map do |point, i|
          following = points[i + 1]
          shape = point.shape
          ticks = following ? following.tick - point.tick : 0
          if ticks.positive? && shape.is_a?(Shapes::Cycle) && shape.note_ticks
            shape = shape.with(cycles: shape.count(ticks),
                               note_ticks: nil)
          end
          point.with(tick: (point.tick / pace).round, shape:)
        end
      end
      private_class_method :in_run, :paced
    end
  end
end
