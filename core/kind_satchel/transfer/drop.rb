# frozen_string_literal: true

module KindSatchel
  module Transfer
    # A {KeptMove} as it comes to an envelope: over a stretch of the envelope's own time, in its role, on its scale.
    # `how` says what the stretch does: `fit` makes the move as long as it, `repeat` fills it with the move over and
    # over, `as_is` leaves the move as long as it was. `over` turns it upside down, `backwards` round.
    class Drop < Value.of(:move, :how, :over, :backwards)
      WAYS = %w[fit repeat as_is].freeze

      def check
        return if WAYS.include?(how)

        fault!("unknown_way", "/how",
               "A move is dropped #{WAYS.join(', ')}, not #{how.inspect}.")
      end

      # @param stretch [Integer] ticks to be filled
      # @return [Integer] ticks that it takes up
      def length(stretch) = how == "as_is" ? move.length_ticks : stretch

      # Whether it can go on as what it is, an LFO, where nothing else is.
      def runs_on? = move.lfo? && !backwards

      # @return [Sources::Lfo]
      def lfo(stretch)
        source = move.source
        return source if how != "fit" || source.free?

        ticks = source.cycle_ticks * stretch / move.length_ticks.to_r
        ticks = ticks.denominator == 1 ? ticks.to_i : ticks.to_f
        source.with(cycle_ticks: ticks.clamp(*Sources::Lfo::CYCLE_TICKS.minmax))
      end

      # @param limits [Array(Float, Float)] the values of the role between which it runs
      # @param scale [Scales::Scale] of what it moves
      # @param bpm [Float] see {KeptMove#snippet}
      # @return [Array<Point>] from tick 0 on, over {#length}
      # @raise [InvalidInput] for more points than an envelope holds
      def points(stretch, role, scale, limits, bpm:)
        list = Drop.between(over ? whole(stretch, bpm).map { |point| upside_down(point) } : whole(stretch, bpm), limits)
        Snippet.new(role:, length_ticks: length(stretch), points: list).points_for(role, scale)
      end

      # Shares as values between two others.
      # @param points [Array<Point>] 0..1
      def self.between(points, limits)
        low, high = limits
        return points if low.zero? && high == 1

        points.map do |point|
          Point.new(tick: point.tick, value: low + (point.value * (high - low)), shape: point.shape.scaled(high - low))
        end
      end

      private

      def whole(stretch, bpm)
        runs = move.lfo? && how != "fit"
        snippet = round(move.snippet(ticks: runs ? length(stretch) : move.length_ticks, bpm:))
        return snippet.points if runs || how == "as_is"

        how == "fit" ? snippet.stretched(stretch).points : repeated(snippet, stretch)
      end

      def round(snippet) = backwards ? snippet.with(points: Backwards.of(filled(snippet))) : snippet

      def repeated(snippet, stretch)
        passes = stretch.fdiv(snippet.length_ticks).ceil
        many = passes * snippet.points.size
        if many > Envelope::MOST_POINTS
          fault!("too_many", "/move",
                 "That would be #{many} points; an envelope holds at most #{Envelope::MOST_POINTS}.")
        end

        lists = Array.new(passes) do |i|
          filled(snippet).map { |point| point.with(tick: point.tick + (i * snippet.length_ticks)) }
        end
        Splice.between(Splice.chain(lists), 0, stretch)
      end

      # From its first tick to its last.
      def filled(snippet) = Splice.between(snippet.points, 0, snippet.length_ticks)

      def upside_down(point) = Point.new(tick: point.tick, value: 1 - point.value, shape: point.shape.scaled(-1))
    end
  end
end
