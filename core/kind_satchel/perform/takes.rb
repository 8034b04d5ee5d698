# frozen_string_literal: true

module KindSatchel
  module Perform
    # What a hand did with one parameter in the laps of a pass, and what of it is to be heard: all laps, later ones
    # over earlier ones; or a list of parts, each a stretch of one lap.
    #
    # @example
    #   first, second = [0.2, 0.8].map { |value| Stroke.new([0, 3840], [value, value], false) }
    #   takes = Takes.new({ 0 => [first], 1 => [second] })
    #   takes.chosen([Takes::Part.new(1, 0, 3840)]).first.values #=> [0.8, 0.8]
    class Takes
      # A stretch of a lap, in ticks of the song.
      Part = Struct.new(:lap, :from, :to)

      # @return [Hash{Integer=>Array<Stroke>}]
      attr_reader :laps

      # Plain records, to be kept beside a song.
      module Records
        module_function

        # @return [Array<Hash>] plain data
        def strokes(list)
          list.map { |stroke| { "held" => stroke.held?, "ticks" => stroke.ticks, "values" => stroke.values } }
        end

        # @return [Array<Stroke>]
        def read(list) = list.map { |record| Stroke.new(record["ticks"], record["values"], record["held"]) }
      end

      def initialize(laps)
        @laps = laps
      end

      # @return [Array<Stroke>] of every lap, in the order they were played
      def all = laps.sort.flat_map(&:last)

      # @param parts [Array<Part>] in order of time, none over another
      # @param join_ticks [Integer] over so many ticks one part glides into the next where they meet; 0 jumps
      # @return [Array<Stroke>]
      # @raise [InvalidInput]
      def chosen(parts, join_ticks = 0)
        check(parts)
        lists = parts.map { |part| @laps[part.lap].filter_map { |stroke| stroke.cut(part.from, part.to) } }
        return lists.flatten if join_ticks.zero?

        # Seams inside of a lap are as they were played.
        lists.each_with_index.with_object([]) do |((first, *rest), i), done|
          next unless first

          i.positive? && parts[i - 1].lap != parts[i].lap ? join(done, first, join_ticks) : done << first
          done.concat(rest)
        end
      end

      private

      def check(parts)
        faults = parts.each_with_index.filter_map do |part, i|
          unless @laps.key?(part.lap)
            next Fault.new("unknown_take", "/parts/#{i}/lap",
                           "There is no take of lap #{part.lap + 1}.")
          end
          next Fault.new("too_short", "/parts/#{i}/to_tick", "A part ends after it starts.") unless part.to > part.from

          if i.positive? && part.from < parts[i - 1].to
            Fault.new("unsorted", "/parts/#{i}/from_tick",
                      "Parts stand in order of time, none over another.")
          end
        end
        raise InvalidInput, faults unless faults.empty?
      end

      # Two strokes that meet are one that goes straight over from the one to the other.
      def join(done, stroke, ticks)
        before = done.last
        return done << stroke if before.nil? || before.to != stroke.from || stroke.held?

        half = [ticks / 2, before.to - before.from - 1, stroke.to - stroke.from - 1].min
        left, right = before.cut(before.from, before.to - half), stroke.cut(stroke.from + half, stroke.to)
        done[-1] = left && right ? Stroke.from_places(left.places + right.places, false) : before
        done << stroke unless left && right
      end
    end
  end
end
