# frozen_string_literal: true

module KindSatchel
  module Edits
    # Draws anew what lies under a stroke of the hand: freehand (thinned to a tolerance), in steps on the grid, or a
    # straight ramp from its first place to its last. The stroke replaces just what it covers; outside it nothing changes.
    module DrawStretch
      # What freehand is thinned to, as a share of the travel, unless said otherwise.
      TOLERANCE = 0.01

      def self.call(song, input)
        drawn = nil
        next_song = Moves.change(song, input[:envelope_id]) do |envelope|
          drawn = stroke(input, envelope.role_rules.values)
          envelope.with(points: Splice.replace(envelope.points, drawn.first.tick, drawn.last.tick, drawn))
        end
        [next_song, "draw #{Moves.count(drawn.size, 'point')} of #{Moves.name(song, input[:envelope_id])}"]
      end

      def self.stroke(input, range)
        outside = input[:points].find_index { |_, value| !range.cover?(value) }
        raise InvalidInput.of("out_of_range", "/points/#{outside}/1", "A value lies outside #{range}, which this envelope may hold.") if outside

        places = input[:points].to_h.sort
        case input[:how]
        when "freehand" then freehand(places, input.fetch(:tolerance, TOLERANCE))
        when "steps" then steps(places, input)
        else line([places.first, places.last])
        end
      end

      def self.freehand(places, tolerance)
        line(Thinning.keep(places.map(&:first), places.map(&:last), tolerance).map { |i| places[i] })
      end

      def self.line(places)
        raise InvalidInput.of("too_short", "/points", "A stroke goes from one tick to another.") unless places.last[0] > places.first[0]

        places.map { |tick, value| Point.new(tick:, value:, shape: Shapes::Straight::PLAIN) }
      end

      # One held value to each cell of the grid; the last one ends with its cell.
      def self.steps(places, input)
        grid = input[:grid_ticks] or raise InvalidInput.of("no_grid", "/grid_ticks", "Steps need the length of a step.")
        cells = places.to_h { |tick, value| [tick / grid * grid, value] }.sort
        held = cells.chunk_while { |a, b| a[1] == b[1] && a[0] + grid == b[0] }.map(&:first)
        [*held, [cells.last[0] + grid, cells.last[1]]].map { |tick, value| Point.new(tick:, value:, shape: Shapes::Hold::PLAIN) }
      end
      private_class_method :stroke, :freehand, :line, :steps
    end
  end
end
