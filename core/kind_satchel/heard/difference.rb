# frozen_string_literal: true

module KindSatchel
  module Heard
    # How far what is heard of one parameter in one song lies from what is heard in another, over all of both songs.
    #
    # Pieces that are the same need no look. Elsewhere both sides are drawn as line chains that keep {FINE}, which
    # differ most at the corners of either; with both tolerances added the number is an upper bound. Points lie on
    # whole ticks, so a jump may come up to a tick early or late: that is told apart.
    class Difference
      # What each chain keeps to, as a share of the travel.
      FINE = 1e-5
      # Less than this is none: what adding up in another order, or cutting a curve, leaves.
      NONE = 1e-7

      # `largest` is an upper bound, as a share of the travel, 0 for none; `moved_jumps` tells whether a jump moved by
      # less than a tick.
      attr_reader :largest, :moved_jumps

      # @param before [Song]
      # @param after [Song]
      # @param addresses [Array<Address>]
      def self.of(before, after, addresses)
        all = addresses.map { |address| new(before, after, address) }
        [all.map(&:largest).max || 0.0, all.any?(&:moved_jumps)]
      end

      # @example
      #   Difference.words(0.02, false) #=> "the largest difference heard is 2 % of the travel"
      # @param share [Float]
      # @param moved_jumps [Boolean]
      # @return [String] for people
      def self.words(share, moved_jumps)
        text = if share < NONE
                 "nothing heard changes"
               else
                 "the largest difference heard is #{Units.at_most(share * 100)} % of the travel"
               end
        moved_jumps ? "#{text}; a jump comes up to a tick early or late" : text
      end

      def initialize(before, after, address)
        @largest = 0.0
        @moved_jumps = false
        to = Difference.reach(before, after, address)
        compare(*[before, after].map { |song| Resolver.new(song, address).pieces(0, to) })
      end

      # A tick after the last thing that could differ.
      def self.reach(before, after, address)
        ends = [before, after].flat_map do |song|
          lanes = song.lanes_of(address).select { |lane| lane.points.any? }
          [song.length_ticks, *lanes.map { |lane| lane.points.last.tick }]
        end
        [ends.max + Timing::PPQ, Timing::LAST_TICK].min
      end

      private

      # Goes through both lists in step.
      def compare(old, new)
        i = j = 0
        at = old.first.from
        while i < old.size && j < new.size
          to = [old[i].to, new[j].to].min
          look(old[i], new[j], at, to) if to > at
          at = to
          i += 1 if old[i].to <= at
          j += 1 if new[j].to <= at
        end
      end

      def look(old, new, from, to)
        same = Likeness.of(old, new, from, to)
        return @largest = [@largest, same].max if same

        chains = [old, new].map { |piece| Outline.of_pieces([piece.cut(from, to)], tolerance: FINE) }
        to - from < 1 ? look_short(chains) : look_long(chains, old.scale.steps)
      end

      # Between two whole ticks: what stands there is a jump that moved.
      def look_short((old, new)) = (old[1] - new[1]).abs > NONE && @moved_jumps = true

      def look_long(chains, steps)
        steps ? look_stepped(*chains) : look_even(*chains)
      end

      def look_even(old, new)
        ticks = [old, new].flat_map { |flat| flat.each_slice(2).map(&:first) }.sort.uniq
        apart = ticks.map { |tick| (value_of(old, tick) - value_of(new, tick)).abs }.max
        @largest = [@largest, apart + (2 * FINE)].max if apart.positive?
      end

      # Steps that differ for a tick or more are a difference; for less, a jump that moved.
      def look_stepped(old, new)
        ticks = [old, new].flat_map { |flat| flat.each_slice(2).map(&:first) }.sort.uniq
        ticks.each_cons(2) do |from, to|
          middle = (from + to) / 2.0
          apart = (value_of(old, middle) - value_of(new, middle)).abs
          next if apart <= NONE

          to - from < 1 ? @moved_jumps = true : @largest = [@largest, apart].max
        end
      end

      # The value of a flat chain at a tick inside it.
      def value_of(flat, tick)
        i = (0...(flat.size / 2)).bsearch { |place| flat[place * 2] > tick } || (flat.size / 2)
        return flat[1] if i.zero?
        return flat[-1] if i * 2 >= flat.size

        from, a, to, b = flat[(i * 2) - 2, 4]
        a + ((b - a) * (tick - from) / (to - from))
      end
    end

    # Whether two pieces are the same curve over a stretch.
    module Likeness
      # Ends and settings closer than this are the same.
      SAME = 1e-9

      module_function

      # @return [Float, nil] an upper bound of how far they are apart where they are made alike; nil where they are not
      def of(old, new, from, to)
        lists = [old, new].map { |piece| [working(piece.scales, 1.0, from), working(piece.shifts, 0.0, from)] }
        return unless lists[0].map(&:size) == lists[1].map(&:size)

        bounds = lists[0].flatten.zip(lists[1].flatten).map do |a, b|
          of_spans(a, b, from, to)
        end << of_sets(old, new, from, to)
        bounds.sum * (old.scale.gain? ? 4 : 1) if bounds.all?
      end

      # What is set, or the knob: the same where both rest on one value.
      def of_sets(old, new, from, to)
        return of_spans(old.set, new.set, from, to) if old.set && new.set
        return if [old, new].any? { |piece| piece.set && !piece.set.still? }

        apart = [old, new].map { |piece| piece.set ? piece.set.at(from) : piece.knob }.reduce(:-).abs
        apart if apart <= SAME
      end

      # Without what rests on the amount that changes nothing.
      def working(spans, neutral, tick) = spans.reject { |span| span.still? && span.at(tick) == neutral }

      def of_spans(old, new, from, to)
        return 0.0 if old.plain? && new.plain? && old.segment.equal?(new.segment) && old.start == new.start
        return unless [old, new].all? { |span| span.still? || span.drawn? }

        ends = [from, to].map { |tick| (old.at(tick) - new.at(tick)).abs }
        return if ends.max > SAME

        shapes = [old, new].map { |span| span.still? ? Shapes::Hold::PLAIN : part(span, from, to) }
        settings = alike(*shapes) or return
        ends.max + settings
      end

      # The shape of a span between two ticks.
      def part(span, from, to)
        u0, u1 = [from, to].map { |tick| span.segment.share_at(span.position(tick)).clamp(0.0, 1.0) }
        span.segment.shape.cut(u0, u1)
      end

      # How far two shapes can be apart for what their settings differ; nil where they are of different kinds.
      def alike(one, other)
        return unless one.instance_of?(other.class)
        return 0.0 unless one.is_a?(Value)

        apart = one.to_h.values.zip(other.to_h.values).map { |a, b| (a - b).abs }.max
        apart * Shapes::Curved::STEEPNESS if apart <= SAME
      end
      private_class_method :of_sets, :working, :of_spans, :part, :alike
    end
  end
end
