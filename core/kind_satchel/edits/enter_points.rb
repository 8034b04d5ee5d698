# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts points on a value and a position as people write them. Several take the value together; in time the first goes
    # to the position and the others keep their distance from it. What cannot be is refused, not cut short.
    module EnterPoints
      def self.call(song, input)
        next_song, what = Moves.change_points(song, input) do |selection, envelope|
          points = input[:value] ? valued(selection, envelope, Moves.scale(song, envelope), input[:value]) : envelope.points
          input[:position] ? placed(song, Selection.new(points, selection.runs), input[:position]) : points
        end
        [next_song, "put #{what} on #{[input[:value], input[:position]].compact.join(' at ')}"]
      end

      def self.valued(selection, envelope, scale, text)
        value = Moves.at("/value") { envelope.role_rules.parse(scale, text) }
        selection.revalued(envelope.role_rules.values) { value }
      end

      def self.placed(song, selection, text)
        ticks = Moves.at("/position") { song.meter.parse(text) } - selection.first.tick
        points = selection.retimed { |point| point.tick + ticks }
        stopped = selection.indexes.find { |i| points[i].tick != selection.points[i].tick + ticks }
        return points unless stopped

        raise InvalidInput.of("in_the_way", "/position", "Another point stands in the way: at #{song.meter.text(points[stopped].tick)} it would be passed.")
      end
      private_class_method :valued, :placed
    end
  end
end
