# frozen_string_literal: true

module KindSatchel
  module Edits
    # Stretches the span of some points to another start and end; those between keep their share of it. Points stop at
    # neighbours that stay. With `push`, all later points come along with the end.
    module StretchPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          from, to = input.values_at(:start_tick, :end_tick)
          raise InvalidInput.of("too_short", "/end_tick", "The span ends after it starts.") unless to > from
          if selection.first.tick == selection.last.tick
            raise InvalidInput.of("too_few", "/runs",
                                  "Stretching takes points on two ticks at least.")
          end

          later = input.fetch(:push, false) ? to - selection.last.tick : 0
          points = Envelopes.pushed(envelope.points, selection.indexes.last + 1, later)
          stretched(Selection.new(points, selection.runs), from, to)
        end
        [next_song, "stretch #{what}"]
      end

      def self.stretched(selection, from, to)
        start = selection.first.tick
        before, after = selection.last.tick - start, to - from
        selection.retimed { |point| from + ((((point.tick - start) * after) + (before / 2)) / before) }
      end
      private_class_method :stretched
    end
  end
end
