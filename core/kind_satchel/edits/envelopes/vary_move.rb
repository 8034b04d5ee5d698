# frozen_string_literal: true

module KindSatchel
  module Edits
    # Repeats a clip's move over so many loops, each a little different, so that the loop does not wear thin. From the
    # first repeat to the last the change grows evenly: to `level` more, `depth` times as deep (about nothing; of a
    # move that sets, about its foot), `later_ticks` later, `faster` times as fast. Every second repeat may be turned
    # (`every_second`: backwards, over, or left out); `scatter` adds chance to level and depth, the same for the same
    # `seed`. The move gets a length of its own: all repeats.
    #
    # As `driven` the move stays as it is, and an envelope beside it moves its depth from repeat to repeat.
    #
    # Regions of the clip that follow one another without a gap are counted on, so that the repeats are heard one
    # after the other (see {CountedOn}); how many of them are heard, and where, is told. What would lead past what the
    # role can hold is made less for all repeats alike, and that is told; where nothing is left of it, it is refused.
    module VaryMove
      MOST_REPEATS = 64
      WAYS = %w[points driven].freeze
      EVERY_SECOND = %w[same backwards over left_out].freeze

      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        unless home.clip
          raise InvalidInput.of("no_clip", "/envelope_id",
                                "A lane repeats nothing; a move in a clip can be varied.")
        end

        input[:as] == "driven" ? driven(song, home, input) : drawn(song, home, input)
      end

      # Other points in each repeat.
      def self.drawn(song, home, input)
        points!(home.envelope)
        repeats = Repeats.new(song, home, input)
        points, length = repeats.points, input[:repeats] * loop_ticks(home)
        next_song = Envelopes.change(song, home.envelope.id) do |one|
          one.with(points:, clock: "own_length", own_length_ticks: length)
        end
        counted = CountedOn.new(next_song, home.clip.id, home.envelope.id, loop_ticks(home), input[:repeats])
        [counted.song, "vary #{Envelopes.name(song, home.envelope.id)} over #{input[:repeats]} loops",
         [Notice.new("thinned", [home.envelope.id], PlainText.count(points.size, "point")),
          *less(home, repeats.strength), counted.tell]]
      end

      # @raise [InvalidInput] for moves without points
      def self.points!(envelope)
        if envelope.lfo?
          raise InvalidInput.of("lfo", "/envelope_id",
                                "An LFO has no points to vary; vary its depth, or turn it into points first.")
        end
        return unless envelope.points.empty?

        raise InvalidInput.of("empty", "/envelope_id",
                              "There is nothing to vary: the envelope has no points.")
      end

      # What of the change is left where all of it has no room.
      def self.less(home, strength)
        return [] if strength > 1 - 1e-9

        [Notice.new("limited", [home.envelope.id],
                    "there is room for #{Units.short(strength * 100)} % of that change; so much is made in all loops " \
                    "alike")]
      end

      # How long one repeat is.
      def self.loop_ticks(home) = home.envelope.own_length_ticks || home.clip.length_ticks

      # Its depth held at another value in each repeat.
      def self.driven(song, home, input)
        envelope, clip = home.envelope, home.clip
        address = Address.setting(envelope.id, "depth")
        EmbedEnvelope.taken!(song, clip, address, "set")
        pass, count = loop_ticks(home), input[:repeats]
        strength = driven_strength(envelope, input, count)
        depths = Array.new(count) { |i| (envelope.depth * Repeats.depth(input, i, count, strength)).clamp(0.0, 1.0) }
        points = depths.each_with_index.map do |depth, i|
          Point.new(tick: i * pass, value: depth, shape: Shapes::Hold::PLAIN)
        end
        made = Envelope.fresh(id: "envelope-#{song.next_id}", target: address, points:,
                              clock: "own_length").with(own_length_ticks: count * pass)
        next_song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, made]))
        counted = CountedOn.new(next_song, clip.id, made.id, pass, count)
        [counted.song, "vary the depth of #{Envelopes.name(song, envelope.id)} over #{count} loops",
         [*less(home, strength), counted.tell]]
      end

      # A depth lies between 0 and 100 %.
      def self.driven_strength(envelope, input, count)
        least, most = (0...count).map { |i| Repeats.change(input, i, count) }.minmax
        room = (1.0 / [envelope.depth, 1e-9].max) - 1
        strength = [1.0, most > room ? room / most : 1.0, least < -1 ? -1 / least : 1.0].min
        Repeats.strength!(strength, "It is at its full depth of 100 % and cannot go deeper.", "/depth")
      end
      private_class_method :driven, :driven_strength, :less

      # The points of all repeats.
      class Repeats
        # A smaller share of a change is nothing.
        NOTHING = 1e-3

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
          @length = VaryMove.loop_ticks(home)
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
                                  "That would be #{list.size} points; \
                                   an envelope holds at most #{Envelope::MOST_POINTS}.")
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
            one.map do |point|
              point.with(tick: point.tick + (i * pass))
            end
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

      # Regions of a clip that follow one another on a track without a gap, counted on: the later ones begin so many
      # whole loops further, so that a move with a length of its own goes on where the one before left it. Their
      # material and all moves of each loop stay as they are; where the clip has a move that would sound otherwise
      # then, all are left as they are.
      class CountedOn
        attr_reader :song

        # @param envelope_id [String] of the move that goes over all repeats
        # @param pass [Integer] how long one of them is, in ticks
        # @param count [Integer]
        def initialize(song, clip_id, envelope_id, pass, count)
          @song, @clip_id, @envelope_id, @pass, @count = song, clip_id, envelope_id, pass, count
          @clip = song.clip(clip_id)
          @song = song.with(tracks: song.tracks.map { |track| counted(track) }) if movable?
        end

        # How many of the repeats are heard, and where.
        # @return [Notice]
        def tell
          places = {}
          @song.directory.regions_of_clip(@clip_id).map(&:region).reject(&:muted).sort_by(&:start_tick).each do |region|
            hear(region, places)
          end
          some = places.size == @count ? "all" : "#{places.size} of the"
          heard = "#{some} #{@count} loops #{places.size == 1 ? 'is' : 'are'} heard"
          nowhere = "the clip lies nowhere yet, so none of them is heard"
          Notice.new("loops_heard", [@envelope_id], places.empty? ? nowhere : "#{heard}, #{where(places)}")
        end

        private

        # Whether all that the clip holds besides sounds the same whole loops later.
        def movable?
          @clip.envelopes.all? do |one|
            one.id == @envelope_id || one.clock == "each_loop" ||
              (one.clock == "own_length" && (@clip.length_ticks % one.own_length_ticks).zero?)
          end
        end

        def counted(track)
          before = nil
          regions = track.regions.map do |region|
            next region.tap { before = nil } unless region.clip_id == @clip_id && region.looped

            goes_on = before && before.clip_id == @clip_id && before.looped && before.end_tick == region.start_tick
            before = goes_on ? region.onward(on(before, region) - region.offset_ticks) : region
          end
          regions == track.regions ? track : track.with(regions:)
        end

        # The first whole loop at or past where the one before comes to.
        def on(before, region)
          left = before.offset_ticks + before.length_ticks - region.offset_ticks
          region.offset_ticks + ([left.fdiv(@clip.length_ticks).ceil, 0].max * @clip.length_ticks)
        end

        def hear(region, places)
          first, last = region.offset_ticks / @pass, (region.offset_ticks + region.length_ticks - 1) / @pass
          (first..[last, first + @count - 1].min).each do |loop|
            places[loop % @count] ||= region.start_tick + [(loop * @pass) - region.offset_ticks, 0].max
          end
        end

        def where(places)
          meters = @song.meters
          first, last = places.values.minmax
          return "at #{meters.text(first)}" if first == last

          "the first at #{meters.text(first)}, the last at #{meters.text(last)}"
        end
      end
    end
  end
end
