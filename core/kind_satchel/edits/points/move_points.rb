# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves points to new ticks and values. A point stops at its neighbours that stay, and never passes them.
    module MovePoints
      def self.call(song, input)
        moves = input[:points].to_h { |move| [move["index"], move] }
        next_song = Envelopes.change(song, input[:envelope_id]) do |envelope|
          Inputs.points_at!(envelope, input[:points].map { |move| move["index"] }, "/points")
          envelope.with(points: moved(envelope.points, moves))
        end
        [next_song, "move #{PlainText.count(moves.size, 'point')} of #{Envelopes.name(song, input[:envelope_id])}"]
      end

      def self.moved(points, moves)
        low = 0
        points.each_with_index.map do |point, i|
          move = moves[i]
          tick = move ? move["tick"].clamp(low, [room_after(points, moves, i), low].max) : point.tick
          low = tick
          move ? point.with(tick:, value: move["value"]) : point
        end
      end

      def self.room_after(points, moves, place)
        following = ((place + 1)...points.size).find { |i| !moves.key?(i) }
        following ? points[following].tick : Timing::LAST_TICK
      end
      private_class_method :moved, :room_after
    end
  end
end
