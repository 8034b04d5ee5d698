# frozen_string_literal: true

module KindSatchel
  module Edits
    # Brings notes towards a grid: their starts (lengths stay), their ends, or both. With swing every second line of
    # the grid comes later by that share of it; strength is how much of the way they go.
    module QuantiseNotes
      def self.call(song, input)
        line = Line.new(input[:grid_ticks], input.fetch(:swing, 0), input.fetch(:strength, 1))
        what = input.fetch(:what, "starts")
        next_song, words = Noting.change(song, input) { |notes| notes.map { |note| quantised(note, line, what) } }
        [next_song, "quantise #{words}"]
      end

      # A grid, and how far things go towards it.
      Line = Struct.new(:grid, :swing, :strength) do
        # @param tick [Integer]
        # @return [Integer] where it comes
        def towards(tick) = (tick + ((nearest(tick) - tick) * strength)).round

        # @return [Numeric] the tick of the line that is nearest, swing counted in
        def nearest(tick)
          first = (tick / grid) - 1
          (first..(first + 3)).map do |i|
            (i * grid) + (i.odd? ? (swing * grid).round : 0)
          end.min_by { |place| (place - tick).abs }
        end
      end

      def self.quantised(note, line, what)
        tick = what == "ends" ? note.tick : [line.towards(note.tick), 0].max
        return note.with(tick:) if what == "starts"

        finish = line.towards(note.tick + note.length_ticks)
        note.with(tick:, length_ticks: [finish - tick, Notes::SHORTEST_TICKS].max)
      end
      private_class_method :quantised
    end
  end
end
