# frozen_string_literal: true

module KindSatchel
  module Edits
    # Draws anew what lies under a stroke of the hand: freehand (thinned to a tolerance), in steps on the grid, or a
    # straight ramp from its first place to its last. The stroke replaces just what it covers; outside it nothing
    # changes.
    module DrawStretch
      # What freehand is thinned to, as a share of the travel, unless said otherwise.
      TOLERANCE = 0.01

      def self.call(song, input)
        drawn = nil
        next_song = Envelopes.change(song, input[:envelope_id]) do |envelope|
          drawn = stroke(input, envelope.role_rules.values)
          envelope.with(points: Splice.replace(envelope.points, drawn.first.tick, drawn.last.tick, drawn))
        end
        [next_song, "draw #{PlainText.count(drawn.size, 'point')} of #{Envelopes.name(song, input[:envelope_id])}"]
      end

      def self.stroke(input, range)
        outside = input[:points].find_index { |_, value| !range.cover?(value) }
        if outside
          raise InvalidInput.of("out_of_range", "/points/#{outside}/1",
                                "A value lies outside #{range}, which this envelope may hold.")
        end

        return steps(input) if input[:how] == "steps"

        places = input[:points].to_h.sort
        return line([places.first, places.last]) if input[:how] == "ramp"

        freehand(places, input.fetch(:tolerance, TOLERANCE))
      end

      def self.freehand(places, tolerance)
        line(Thinning.keep(places.map(&:first), places.map(&:last), tolerance).map { |i| places[i] })
      end

      def self.line(places)
        unless places.last[0] > places.first[0]
          raise InvalidInput.of("too_short", "/points",
                                "A stroke goes from one tick to another.")
        end

        places.map { |tick, value| Point.new(tick:, value:, shape: Shapes::Straight::PLAIN) }
      end

      # One held value to each cell of the grid; the last one ends with its cell.
      def self.steps(input)
        grid = input[:grid_ticks] or raise InvalidInput.of("no_grid", "/grid_ticks", "Steps need the length of a step.")
        cells = cells(input[:points], grid).transform_keys { |cell| cell * grid }.sort
        held = cells.chunk_while { |a, b| a[1] == b[1] && a[0] + grid == b[0] }.map(&:first)
        [*held, [cells.last[0] + grid, cells.last[1]]].map do |tick, value|
          Point.new(tick:, value:, shape: Shapes::Hold::PLAIN)
        end
      end

      # The value of each cell a hand went through, in the order it went: the last in a cell counts, and cells that a
      # fast hand left out between two places take the values between.
      # @return [Hash{Integer=>Float}] cell => value
      def self.cells(places, grid)
        steps = places.map { |tick, value| [tick / grid, value] }
        steps.each_cons(2).with_object([steps.first].to_h) do |((a, low), (b, high)), found|
          a.step(b, b <=> a) { |cell| found[cell] = low + ((high - low) * (cell - a) / (b - a)) } unless a == b
          found[b] = high
        end
      end
      private_class_method :stroke, :freehand, :line, :steps, :cells
    end
  end
end
