# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes points out of an envelope. The segment before each runs on to the next point that stays. With `push`, all
    # later points move up: the next one that stays comes to where the first that is gone stood.
    module RemovePoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          closed = 0
          envelope.points.each_with_index.filter_map do |point, i|
            if selection.include?(i)
              following = envelope.points[i + 1]
              closed += following.tick - point.tick if input.fetch(:push, false) && following
              next
            end
            closed.zero? ? point : point.with(tick: point.tick - closed)
          end
        end
        [next_song, "remove #{what}"]
      end
    end
  end
end
