# frozen_string_literal: true

module KindSatchel
  module Perform
    # Where a part of a stroke stands in an envelope, in the envelope's own positions, and what of the song it is.
    #
    # @example a loop of one bar, played twice: the first bar is not heard as it was played
    #   first, again = [0, 3840].map { |tick| PlayedPart.new("envelope-1", 0, 3840, tick, tick + 3840) }
    #   PlayedPart.lost_ticks([first, again]) #=> 3840
    PlayedPart = Struct.new(:envelope_id, :from, :to, :song_from, :song_to) do
      # @param parts [Array<PlayedPart>] in the order they were written
      # @return [Integer] ticks of the song that later parts wrote over at other places of the song
      def self.lost_ticks(parts)
        lost = 0
        parts.reduce([]) do |standing, part|
          standing.flat_map do |earlier|
            rest, ticks = earlier.without(part)
            lost += ticks
            rest
          end << part
        end
        lost
      end

      # @param other [PlayedPart] written later
      # @return [Array(Array<PlayedPart>, Integer)] what the other leaves of it, and how many ticks of the song it takes
      def without(other)
        return [[self], 0] if other.envelope_id != envelope_id || other.from >= to || other.to <= from

        left, right = [from, other.from].max, [to, other.to].min
        rest = [[from, left], [right, to]].select { |first, last| last > first }
        rest = rest.map { |first, last| self.class.new(envelope_id, first, last, song_at(first), song_at(last)) }
        taken_from, taken_to = song_at(left), [song_to, song_at(right)].min
        [rest, taken_to - taken_from - shared_ticks(other, song_at(left), song_at(right))]
      end

      private

      def song_at(position) = song_from + ((position - from) * (song_to - song_from).fdiv(to - from)).round

      # What is played again at the same place of the song replaces itself; nothing of it is lost.
      def shared_ticks(other, left, right) = [[right, other.song_to].min - [left, other.song_from].max, 0].max
    end
  end
end
