# frozen_string_literal: true

module KindSatchel
  module Edits
    # The points of a move over several loops, each a little different: what {VaryMove} writes.
    class Repeats
      # A smaller share of a change is nothing.
      NOTHING = 1e-3

      # How long one repeat is.
      def self.loop_ticks(home) = home.envelope.own_length_ticks || home.clip.length_ticks

      # How much deeper a repeat is than the first.
      # @param strength [Float] share of the change that is made
      def self.depth(input, place, count, strength = 1.0)
        left = input[:every_second] == "left_out" && place.odd? ? 0.0 : 1.0
        left * (1 + (strength * change(input, place, count)))
      end

      # @return [Float] what is added to the depth in one of so many repeats
      def self.change(input, place, count)
        ((input.fetch(:depth, 1.0) - 1) * share(place, count)) + chance(input, place, 0)
      end

      # @raise [InvalidInput] where nothing is left
      def self.strength!(share, words, path)
        return share if share > NOTHING

        raise InvalidInput.of("no_room", path, words)
      end

      # @return [Float] 0..1, how far through the repeats it is
      def self.share(place, count) = count > 1 ? place / (count - 1.0) : 0.0

      # -scatter..scatter, the first repeat is as it is drawn.
      def self.chance(input, place, of)
        scatter = input.fetch(:scatter, 0.0)
        if place.zero? || scatter.zero?
          0.0
        else
          scatter * ((2 * Sources::RandomLevels.at(input.fetch(:seed, 1), (2 * place) + of)) - 1)
        end
      end

      def initialize(song, home, input)
        @input = input
        @count = input[:repeats]
        @envelope = home.envelope
        @length = Repeats.loop_ticks(home)
        @base = Splice.between(@envelope.points, 0, @length)
        @rules = @envelope.role_rules
        @level = level(song)
        least, most = Roles.full(@envelope.role)
        @range = (least..most)
      end

      # What share of the change there is room for, in all repeats alike.
      # @return [Float] 0..1
      # @raise [InvalidInput] where nothing is left of it
      def strength
        words = "There is no room for that change: it goes to the end of its travel already."
        @strength ||= Repeats.strength!(room, words, "/#{%i[level depth].find { |one| @input[one] } || :scatter}")
      end

      # @return [Array<Point>]
      # @raise [InvalidInput] for more points than an envelope holds
      def points
        lists = Array.new(@count) { |i| repeat(i).map { |point| point.with(tick: point.tick + (i * @length)) } }
        list = Splice.chain(lists)
        if list.size > Envelope::MOST_POINTS
          raise InvalidInput.of("too_many", "/repeats",
                                "That would be #{list.size} points; an envelope holds at most " \
                                "#{Envelope::MOST_POINTS}.")
        end

        list
      end

      private

      # What the last repeat is raised by, as a share of what the role may hold.
      def level(song)
        given = @input[:level] or return 0.0
        return given if given.is_a?(Numeric)

        percent = Units::PERCENT.parse(given.delete_prefix("+"))
        return percent / 100.0 if percent&.between?(-100, 100)

        InvalidInput.under("/level") do
          raise InvalidInput.of("bad_value", "",
                                "#{given.inspect} is no share of the travel of " \
                                "#{Envelopes.name(song, @envelope.id)}; write it like +10 %.")
        end
      end

      # The value that changes nothing; a depth draws a move towards it.
      def rest = @rest ||= @rules.neutral || @base.map(&:value).min

      def repeat(place)
        second = place.odd? ? @input.fetch(:every_second, "same") : "same"
        return [hold(0), hold(@length)] if second == "left_out"

        turned = turned(place, second)
        grown, raised = 1 + (strength * Repeats.change(@input, place, @count)), strength * raised(place)
        factor = second == "over" ? -grown : grown
        turned.map do |point, value|
          value = (rest + ((value - rest) * grown) + raised).clamp(@range.min, @range.max)
          Point.new(tick: point.tick, value:, shape: factor == 1 ? point.shape : point.shape.scaled(factor))
        end
      end

      # The points of a repeat in their places, each with its value before it is changed.
      def turned(place, second)
        list = later(faster(second == "backwards" ? Backwards.of(@base) : @base, place), place)
        middle = list.map(&:value).minmax.sum / 2
        list.map { |point| [point, second == "over" ? (2 * middle) - point.value : point.value] }
      end

      def raised(place) = (@level * Repeats.share(place, @count)) + Repeats.chance(@input, place, 1)

      # Every value goes straight with the strength, so each says how far it can go.
      def room
        shares = (0...@count).flat_map do |place|
          second = place.odd? ? @input.fetch(:every_second, "same") : "same"
          next [] if second == "left_out"

          change, raised = Repeats.change(@input, place, @count), raised(place)
          turned(place, second).map { |_, value| share(value, ((value - rest) * change) + raised) }
        end
        [1.0, *shares].min
      end

      def share(value, way)
        return 1.0 if way.abs < 1e-12

        ((way.positive? ? @range.max : @range.min) - value).fdiv(way).clamp(0.0, 1.0)
      end

      def hold(tick) = Point.new(tick:, value: rest, shape: Shapes::Hold::PLAIN)

      # The move over and over in less time each.
      def faster(list, place)
        speed = 1 + ((@input.fetch(:faster, 1.0) - 1) * Repeats.share(place, @count))
        pass = [(@length / speed).round, 1].max
        return list if pass == @length

        one = Snippet.new(role: "set", length_ticks: @length, points: list).stretched(pass).points
        passes = Array.new(@length.fdiv(pass).ceil) do |i|
          one.map { |point| point.with(tick: point.tick + (i * pass)) }
        end
        Splice.between(Splice.chain(passes), 0, @length)
      end

      # It waits at its first value.
      def later(list, place)
        by = (@input.fetch(:later_ticks, 0) * Repeats.share(place, @count)).round.clamp(0, @length - 1)
        return list if by.zero?

        kept = Splice.between(list, 0, @length - by).map { |point| point.with(tick: point.tick + by) }
        [list.first.with(tick: 0, shape: Shapes::Hold::PLAIN), *kept]
      end
    end
  end
end
