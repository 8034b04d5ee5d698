# frozen_string_literal: true

module KindSatchel
  module Heard
    # What an envelope stays between, without going through its segments one by one.
    module Bounds
      # Points are looked at in blocks of so many, once for each envelope.
      BLOCK = 256

      module_function

      # @param from [Numeric] position in the envelope
      # @param to [Numeric]
      # @return [Array(Float, Float)] least and most, or a little wider
      def of(envelope, from, to)
        swing = envelope.source.swing(envelope)
        return swing if swing

        points = envelope.points
        first = [(points.bsearch_index { |point| point.tick > from } || points.size) - 1, 0].max
        last = [(points.bsearch_index { |point| point.tick > to } || points.size) - 1, first].max
        list = part(envelope, first, from, to)
        return list.minmax if first == last

        list += part(envelope, last, from, to)
        whole(envelope, first + 1, last - 1, list)
        list.minmax
      end

      # What one segment stays between in a part of it: all but drawn cycles go one way. Of a short one all of it is
      # told.
      def part(envelope, index, from, to)
        point, following = envelope.points[index], envelope.points[index + 1]
        short = following && following.tick - point.tick <= to - from
        return known(envelope)[index] ||= segment(envelope, index).minmax if short || point.shape.is_a?(Shapes::Cycle)

        list = [envelope.at([from, point.tick].max)]
        return list unless following

        list << (to < following.tick ? envelope.at(to) : arrived(envelope, index))
      end

      # Where a segment arrives: one that holds does not move.
      def arrived(envelope, index)
        still = envelope.points[index].shape.still?
        limited(envelope, envelope.points[still ? index : index + 1].value)
      end

      # Of all segments from one to another, both among them.
      def whole(envelope, first, last, list)
        lows, highs = block_bounds(envelope) if last - first >= BLOCK
        known = known(envelope)
        while first <= last
          if (first % BLOCK).zero? && first + BLOCK - 1 <= last
            list << lows[first / BLOCK] << highs[first / BLOCK]
            first += BLOCK
          else
            list.concat(known[first] ||= segment(envelope, first).minmax)
            first += 1
          end
        end
      end

      # The positions an envelope goes through in from...to: all of a pass once there is a whole one.
      # @param source [Source]
      # @return [Array<Array(Numeric, Numeric)>]
      def positions(source, from, to)
        region, clip, envelope = source.region, source.clip, source.envelope
        from, to = [from, region.start_tick].max, [to, region.end_tick].min
        pass = Clocks::ALL.fetch(envelope.clock).pass_ticks(region, clip, envelope)
        return [[0, pass]] if pass && to - from >= pass

        start, finish = Clocks.position(region, clip, envelope, from), Clocks.position(region, clip, envelope, to - 1)
        finish < start ? [[start, pass], [0, finish + 1]] : [[start, finish + 1]]
      end

      # By segment, as far as they were looked at.
      def known(envelope) = envelope.memo(:segment_bounds) { Array.new(envelope.points.size) }

      def block_bounds(envelope)
        envelope.memo(:bounds) do
          blocks = (0...envelope.points.size).each_slice(BLOCK).map do |places|
            places.flat_map { |i| segment(envelope, i) }.minmax
          end
          [blocks.map(&:first), blocks.map(&:last)]
        end
      end

      # What the segment that leaves a point stays between.
      def segment(envelope, index)
        point, ends = envelope.points[index], envelope.ends_at(index)
        values = ends ? [ends.a, ends.b, *swings(point.shape, ends)] : [point.value]
        values.map { |value| limited(envelope, value) }
      end

      def limited(envelope, value)
        limits = envelope.role_rules.values
        envelope.amount(value.clamp(limits.min.to_f, limits.max.to_f))
      end

      def swings(shape, ends) = shape.is_a?(Shapes::Cycle) ? [ends.a + shape.foot, ends.b + shape.top] : []

      private_class_method :part, :arrived, :whole, :known, :block_bounds, :segment, :limited, :swings
    end
  end
end
