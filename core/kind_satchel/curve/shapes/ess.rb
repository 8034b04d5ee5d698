# frozen_string_literal: true

module KindSatchel
  module Shapes
    # An S: curved in each half, the second half the point reflection of the first. `curve` in -1..1: above 0 it
    # starts and ends slowly, below 0 fast; at 0 it is straight. `from` and `to` (0..1) say which stretch of the
    # whole S this is; cutting narrows them.
    #
    # @example
    #   Shapes.value_at(Ess.new(curve: 0.5, from: 0.0, to: 1.0), Shapes::Ends.new(0.0, 1.0, 960), 0.5) #=> 0.5
    class Ess < Value.of(:curve, :from, :to)
      def self.of(record)
        new(curve: record.fetch("curve", 0.0), from: record.fetch("from", 0.0), to: record.fetch("to", 1.0))
      end

      def initialize(from:, to:, **more)
        super(from: from.is_a?(Float) ? Grid.share(from) : from, to: to.is_a?(Float) ? Grid.share(to) : to, **more)
      end

      def check
        number!("/curve", curve, -1..1)
        number!("/from", from, 0..1)
        number!("/to", to, 0..1)
        fault!("out_of_range", "/to", "The stretch of an ess ends after it starts.") unless to > from
      end

      # One bend for each half that shows.
      def parts(ends)
        middle = ((0.5 - from) / (to - from)).clamp(0.0, 1.0)
        [[0, middle], [middle, 1]].filter_map { |start, finish| half(ends, start, finish) if finish > start }
      end

      def cut(start, finish, *) = with(from: place(start), to: place(finish))
      def reversed(_ends) = memo(:reversed) { with(from: 1 - to, to: 1 - from) }
      def scaled(_factor) = self
      def settings = { "curve" => curve, "from" => from, "to" => to }
      def text = "ess #{format('%.2f', curve)}"

      private

      def place(position) = from + ((to - from) * position)

      def half(ends, start, finish)
        left, right = [start, finish].map { |u| from + ((to - from) * u) }
        share = [(right - left) * 2, 1.0].min # rounding may lay an end a little past the middle
        bend = Curved.new(curve: (left + right < 1 ? curve : -curve) * share)
        Part.new(start, finish, level(ends, left), level(ends, right), bend)
      end

      # The value of the segment where the whole S is at `position`.
      def level(ends, position)
        foot, top = whole(from), whole(to)
        ends.a + ((ends.b - ends.a) * (whole(position) - foot) / (top - foot))
      end

      def whole(position)
        bend = memo(:bend) { Curved.new(curve:) }
        position < 0.5 ? bend.weight(position * 2) / 2 : 1 - (bend.weight(2 - (position * 2)) / 2)
      end
    end
  end
end
