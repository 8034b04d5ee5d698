# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes points out of an envelope. The segment before each runs on to the next point that stays.
    module RemovePoints
      def self.call(song, input)
        gone = input[:indexes]
        next_song = Moves.change(song, input[:envelope_id]) do |envelope|
          Moves.points_at!(envelope, gone, "/indexes")
          envelope.with(points: envelope.points.each_with_index.reject { |_, i| gone.include?(i) }.map(&:first))
        end
        [next_song, "remove #{Moves.count(gone.size, 'point')} from #{Moves.name(song, input[:envelope_id])}"]
      end
    end
  end
end
