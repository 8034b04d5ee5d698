# frozen_string_literal: true

module KindSatchel
  module Edits
    # Repeats a clip's move over so many loops, each a little different, so that the loop does not wear thin. From the first repeat to
    # the last the change grows evenly: to `level` more, `depth` times as deep (about nothing; of a move that sets, about its foot),
    # `later_ticks` later, `faster` times as fast. Every second repeat may be turned (`every_second`: backwards, over, or left out);
    # `scatter` adds chance to level and depth, the same for the same `seed`. The move gets a length of its own: all repeats.
    #
    # As `driven` the move stays as it is, and an envelope beside it moves its depth from repeat to repeat.
    module VaryMove
      MOST_REPEATS = 64
      WAYS = %w[points driven].freeze
      EVERY_SECOND = %w[same backwards over left_out].freeze

      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        raise InvalidInput.of("no_clip", "/envelope_id", "A lane repeats nothing; a move in a clip can be varied.") unless home.clip

        return driven(song, home, input) if input[:as] == "driven"
        raise InvalidInput.of("lfo", "/envelope_id", "An LFO has no points to vary; vary its depth, or turn it into points first.") if home.envelope.lfo?
        raise InvalidInput.of("empty", "/envelope_id", "There is nothing to vary: the envelope has no points.") if home.envelope.points.empty?

        points = Repeats.new(song, home, input).points
        length = input[:repeats] * loop_ticks(home)
        next_song = Moves.change(song, home.envelope.id) { |one| one.with(points:, clock: "own_length", own_length_ticks: length) }
        [next_song, "vary #{Moves.name(song, home.envelope.id)} over #{input[:repeats]} loops",
         [Tell.new("thinned", [home.envelope.id], Moves.count(points.size, "point"))]]
      end

      # How long one repeat is.
      def self.loop_ticks(home) = home.envelope.own_length_ticks || home.clip.length_ticks

      # Its depth held at another value in each repeat.
      def self.driven(song, home, input)
        envelope, clip = home.envelope, home.clip
        address = Address.setting(envelope.id, "depth")
        EmbedEnvelope.taken!(song, clip, address, "set")
        pass, count = loop_ticks(home), input[:repeats]
        depths = Array.new(count) { |i| (envelope.depth * Repeats.depth(input, i, count)).clamp(0.0, 1.0) }
        points = depths.each_with_index.map { |depth, i| Point.new(tick: i * pass, value: depth, shape: Shapes::Hold::PLAIN) }
        made = Envelope.fresh(id: "envelope-#{song.next_id}", target: address, points:, clock: "own_length").with(own_length_ticks: count * pass)
        next_song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, made]))
        [next_song, "vary the depth of #{Moves.name(song, envelope.id)} over #{count} loops"]
      end
      private_class_method :driven

      # The points of all repeats.
      class Repeats
        # How much deeper a repeat is than the first.
        def self.depth(input, place, count)
          grown = 1 + ((input.fetch(:depth, 1.0) - 1) * share(place, count))
          left = input[:every_second] == "left_out" && place.odd? ? 0.0 : 1.0
          left * (grown + chance(input, place, 0))
        end

        def self.share(place, count) = count > 1 ? place / (count - 1.0) : 0.0

        # -scatter..scatter, the first repeat is as it is drawn.
        def self.chance(input, place, of)
          scatter = input.fetch(:scatter, 0.0)
          place.zero? || scatter.zero? ? 0.0 : scatter * ((2 * Sources::RandomLevels.at(input.fetch(:seed, 1), (2 * place) + of)) - 1)
        end

        def initialize(song, home, input)
          @input = input
          @count = input[:repeats]
          @envelope = home.envelope
          @length = VaryMove.loop_ticks(home)
          @base = Splice.between(@envelope.points, 0, @length)
          @rules = @envelope.role_rules
          @level = level(song)
          least, most = Roles.full(@envelope.role)
          @range = (least..most)
        end

        # @return [Array<Point>]
        # @raise [InvalidInput] for more points than an envelope holds
        def points
          lists = Array.new(@count) { |i| repeat(i).map { |point| point.with(tick: point.tick + (i * @length)) } }
          list = Splice.chain(lists)
          if list.size > Envelope::MOST_POINTS
            raise InvalidInput.of("too_many", "/repeats",
"That would be #{list.size} points; an envelope holds at most #{Envelope::MOST_POINTS}.")
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

          Moves.at("/level") do
            raise InvalidInput.of("bad_value", "", "#{given.inspect} is no share of the travel of #{Moves.name(song, @envelope.id)}; write it like +10 %.")
          end
        end

        # What nothing is: to it a move is drawn.
        def rest = @rest ||= @rules.neutral || @base.map(&:value).min

        def repeat(place)
          second = place.odd? ? @input.fetch(:every_second, "same") : "same"
          return [hold(0), hold(@length)] if second == "left_out"

          list = later(faster(second == "backwards" ? Backwards.of(@base) : @base, place), place)
          grown = Repeats.depth(@input, place, @count)
          raised = (@level * Repeats.share(place, @count)) + Repeats.chance(@input, place, 1)
          factor = second == "over" ? -grown : grown
          middle = second == "over" ? list.map(&:value).minmax.sum / 2 : nil
          list.map { |point| placed(point, grown, factor, raised, middle) }
        end

        def placed(point, grown, factor, raised, middle)
          value = middle ? (2 * middle) - point.value : point.value
          value = rest + ((value - rest) * grown) + raised
          Point.new(tick: point.tick, value: value.clamp(@range.min, @range.max), shape: factor == 1 ? point.shape : point.shape.scaled(factor))
        end

        def hold(tick) = Point.new(tick:, value: rest, shape: Shapes::Hold::PLAIN)

        # The move over and over in less time each.
        def faster(list, place)
          speed = 1 + ((@input.fetch(:faster, 1.0) - 1) * Repeats.share(place, @count))
          pass = [(@length / speed).round, 1].max
          return list if pass == @length

          one = Snippet.new(role: "set", length_ticks: @length, points: list).stretched(pass).points
          passes = Array.new(@length.fdiv(pass).ceil) { |i| one.map { |point| point.with(tick: point.tick + (i * pass)) } }
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
end
