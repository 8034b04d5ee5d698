# frozen_string_literal: true

module KindSatchel
  module Perform
    # What {HandPass} wrote, and what is to be told of it.
    #
    # - `song`       the next {Song}
    # - `bases`      of each envelope by its id, what it was before the pass or as it was made: "made", "points", and
    #   "clock" where the pass changed it
    # - `written`    [address, {PlayedPart}, {Stroke}] of all that was written, in the order it was played
    # - `overruled`  names of clips that set later there
    # - `limited`    whether amounts were limited
    # - `homeless`   where no clip sounds: "lane", "lost"
    # - `replaced`   ids of envelopes that were off and start as new ones
    # - `stilled`    names of settings whose moves were switched off
    # - `apart`      names of clips of which regions were made separate, so that a move runs once over each
    # - `idle`       where the role can do nothing: [address, role, first tick, last tick]
    class WrittenPass < Value.of(:song, :bases, :written, :overruled, :limited, :homeless, :replaced, :stilled, :apart,
                                 :idle)
      # @param song [Song] in which nothing is written yet
      # @return [WrittenPass]
      def self.none(song)
        new(song:, bases: {}, written: [], overruled: [], limited: false, homeless: [], replaced: [], stilled: [],
            apart: [], idle: [])
      end

      # @return [WrittenPass] with entries added to its lists, each once
      def noting(**lists) = with(**lists.to_h { |name, list| [name, public_send(name) | list] })

      # @return [Hash{Address=>Array<String>}] ids of the envelopes that were written into
      def envelopes = grouped.transform_values { |entries| entries.map { |_, part| part.envelope_id }.uniq }

      # What later loops wrote over is not heard where it was played.
      # @return [Hash{Address=>Integer}] how many ticks of the song that is
      def lost_ticks
        lost = grouped.transform_values { |entries| PlayedPart.lost_ticks(entries.map { |_, part| part }) }
        lost.select { |_, ticks| ticks.positive? }
      end

      # How far what is heard lies from what the hand did, wherever any of it was written: at its samples and between
      # them, of several laps on one stretch the last. An upper bound; see {Strayed} for what counts as time.
      # @param earlier [Array<Stroke>] what was played before in the same pass
      # @return [Float] as a share of the travel
      def difference(address, earlier = [])
        resolver = Heard::Resolver.new(song, address)
        played = grouped.fetch(address, []).map(&:last)
        last(earlier + played).map { |stroke| Strayed.of(resolver.pieces(stroke.from, stroke.to), stroke) }.max || 0.0
      end

      private

      def grouped = memo(:grouped) { written.group_by(&:first) }

      # Of strokes over each other, what is left of the earlier ones.
      def last(strokes)
        strokes.reduce([]) do |kept, stroke|
          left = kept.flat_map { |other| [other.cut(other.from, stroke.from), other.cut(stroke.to, other.to)] }
          left.compact << stroke
        end
      end
    end
  end
end
