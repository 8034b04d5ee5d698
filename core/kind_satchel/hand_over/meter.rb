# frozen_string_literal: true

module KindSatchel
  module HandOver
    # How far straight lines between whole ticks lie from what is heard of a parameter, in its own unit: on ticks and
    # between. `largest` is an upper bound, `mean` the mean over the ticks, `tick` where the largest is.
    #
    # What is heard is followed by chains that stay within a small room of it; what that room is worth in the unit
    # where the chain stands is counted in. A jump between two ticks goes to the next tick: what lies between there is
    # a matter of time, and not counted. What is softer than {Loss::SILENCE_DB} is silence.
    class Meter
      # How far a chain may stray, as a share of the travel; of gains, whose decibels grow long towards silence, less
      # there.
      ROOM = 1e-4
      GAIN_ROOM = 7e-4
      # Values closer than this are the same.
      SAME = 1e-9

      attr_reader :largest, :tick

      # @param scale [Scales::Scale]
      # @param lines [Course]
      # @param room [Float] how far the lines may stray from what they stand for, as a share of the travel
      def initialize(scale, lines, room: 0.0)
        @room = room
        @scale = scale
        @law = Law.of(scale)
        @ticks, @values = lines.ticks, lines.values
        @place = 0
        @largest, @tick, @area, @width = 0.0, @ticks[0], 0.0, 0.0
      end

      # @param pieces [Array<Heard::Piece>] in order, without gaps
      # @return [Meter] itself
      def over(pieces)
        @after, @from = nil, pieces[0].from
        pieces.each { |piece| look(piece) }
        @largest = 0.0 if @largest < SAME
        self
      end

      # @return [Float] the mean of what was measured, over time
      def mean = @width.zero? ? @largest : @area / @width

      private

      def look(piece)
        room = room(piece)
        chain = Heard::Outline.of_pieces([piece], **(room.zero? ? {} : { tolerance: room }))
        @from = [@from, jumps?(chain[0], chain[1]) ? chain[0].ceil : chain[0]].max
        (2...chain.size).step(2) do |i|
          at, value, to, goal = chain[i - 2, 4]
          if to > at
            along(at, value, to, goal, room + @room)
          elsif !to.is_a?(Integer) && (value - goal).abs > SAME
            @from = [@from, to.ceil].max
          end
        end
        @after = chain[-1]
      end

      def jumps?(tick, value) = @after && !tick.is_a?(Integer) && (value - @after).abs > SAME

      # Straight pieces are their own chains, and steps are found exactly.
      def room(piece)
        return 0.0 if piece.scale.steps || piece.still? || piece.straight?
        return ROOM unless @scale.gain?

        low = piece.jet(piece.from, piece.to).low
        (GAIN_ROOM * [low, @law.silence].max).clamp(0.0, ROOM)
      end

      # One line of the chain, beside each of the lines that it passes.
      def along(at, value, to, goal, room)
        start = [at, @from].max
        return unless to > start

        pace = (goal - value) / (to - at)
        while start < to
          step(start)
          finish = [@ticks[@place + 1] || to, to].min
          finish = to if finish <= start
          heard = [value + (pace * (start - at)), finish == to ? goal : value + (pace * (finish - at))]
          compare(start, finish, heard, [line_at(start), line_at(finish)], room)
          start = finish
        end
      end

      # To the line that a tick begins or lies on.
      def step(tick)
        @place += 1 while @place + 1 < @ticks.size && @ticks[@place + 1] <= tick
      end

      def line_at(tick)
        from, to = @ticks[@place], @ticks[@place + 1]
        return @values[@place] if to.nil? || tick <= from

        @values[@place] + ((@values[@place + 1] - @values[@place]) * (tick - from) / (to - from).to_f)
      end

      def compare(start, finish, (value, goal), (line, line_goal), room)
        width = finish - start
        @width += width
        return if value == line && goal == line_goal && room.zero?

        @law.shares(value, goal, line, line_goal).each_cons(2) do |from, to|
          heard = [from, to].map { |share| value + ((goal - value) * share) }
          drawn = [from, to].map { |share| line + ((line_goal - line) * share) }
          @area += (@law.mean(*heard) - @law.mean(*drawn)).abs * width * (to - from)
          2.times { |i| note(heard[i], drawn[i], room, start + (width * (i.zero? ? from : to))) }
        end
      end

      def note(heard, drawn, room, tick)
        apart = @law.apart(heard, drawn)
        return unless apart.positive? || room.positive?

        apart += [@law.apart(heard, heard + room), @law.apart(heard, heard - room)].max if room.positive?
        @largest, @tick = apart, tick.round if apart > @largest
      end

      # How a scale turns lines of travel into its unit: where two lines may be furthest apart, and what a line is in
      # the mean.
      class Law
        # Lines nearer to level than this are level.
        LEVEL = 1e-7

        # @return [Law] how values of a scale lie apart
        def self.of(scale)
          return Gain.new(scale) if scale.gain?

          scale.linear? ? new(scale) : Exponential.new(scale)
        end

        def initialize(scale) = @scale = scale

        # @return [Float] in the unit of the scale
        def natural(value) = @scale.natural(value.clamp(0.0, 1.0))

        # @return [Float] how far two values lie apart, in that unit
        def apart(one, other) = one == other ? 0.0 : (natural(one) - natural(other)).abs

        # @return [Float] below it nothing is heard
        def silence = 0.0

        # The ends of two lines and every share of the way where they meet, or where their difference turns.
        # @return [Array<Float>] in order
        def shares(value, goal, line, line_goal)
          inner = [meeting(value - line, goal - line_goal), *turns(value, goal, line, line_goal)].select do |share|
            share&.between?(LEVEL, 1 - LEVEL)
          end
          inner.empty? ? ENDS : [0.0, *inner.sort, 1.0]
        end
        ENDS = [0.0, 1.0].freeze

        # The mean of a line in the unit.
        def mean(from, to) = natural((from + to) / 2)

        private

        def meeting(first, last)
          (first.positive? && last.negative?) || (first.negative? && last.positive?) ? first / (first - last) : nil
        end

        def turns(*) = []
      end

      # low ratio^n: h and l are furthest apart where h' ratio^h = l' ratio^l.
      class Exponential < Law
        def initialize(scale)
          super
          @power = Math.log(scale.ratio)
        end

        # The integral of ratio^n over a line is what it grows by over its slope.
        def mean(from, to) = (to - from).abs < LEVEL ? super : (natural(to) - natural(from)) / (@power * (to - from))

        private

        def turns(value, goal, line, line_goal)
          rise, other = goal - value, line_goal - line
          return [] unless (rise * other).positive? && rise != other

          [((Math.log(other / rise) / @power) - (value - line)) / (rise - other)]
        end
      end

      # 40 log10 n: two lines are furthest apart at an end, or where one comes to silence.
      class Gain < Law
        attr_reader :silence

        def initialize(scale)
          super
          @silence = scale.normalised(Loss::SILENCE_DB)
        end

        # @return [Float] dB
        def natural(value) = value <= @silence ? Loss::SILENCE_DB : super

        # The integral of ln n is n ln n - n. Of a line that begins or ends a hair off where it comes to silence, the
        # rest is silent.
        def mean(from, to)
          from, to = [from, to].map { |value| [value, @silence].max }
          return super if (to - from).abs < LEVEL

          low, high = [from, to].map { |value| value * (Math.log(value) - 1) }
          @scale.natural(1.0) + (40 / Math.log(10) * (high - low) / (to - from))
        end

        private

        def turns(value, goal, line, line_goal)
          [[value, goal], [line, line_goal]].map { |from, to| meeting(from - @silence, to - @silence) }
        end
      end
      private_constant :Law, :Exponential, :Gain
    end
  end
end
