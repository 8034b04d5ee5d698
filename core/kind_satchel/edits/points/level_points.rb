# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes points level: with the first of them, with the point before them, or with a value as people write it.
    module LevelPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          level = level(selection, envelope, Envelopes.scale(song, envelope), input[:to])
          selection.revalued(envelope.role_rules.values) { level }
        end
        [next_song, "level #{what}"]
      end

      def self.level(selection, envelope, scale, to)
        case to
        when "first" then selection.first.value
        when "before" then before(selection)
        else InvalidInput.under("/to") { Envelopes.typed(envelope, scale, to) }
        end
      end

      def self.before(selection)
        first = selection.indexes.first
        return selection.points[first - 1].value if first.positive?

        raise InvalidInput.of("no_point_before", "/to", "No point stands before the chosen ones.")
      end
      private_class_method :level, :before
    end
  end
end
