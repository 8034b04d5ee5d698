# frozen_string_literal: true

module KindSatchel
  module Edits
    # Drops a {KeptMove} on an envelope (`envelope_id`), or on a parameter (`address`) in a clip (`clip_id`) or on its
    # lane, where it makes an envelope if there is none of that role. It lies from `tick` on over `length_ticks`, by
    # default the rest of the clip, or the move's own length on a lane; `how` fits it there, repeats it to fill, or
    # leaves it as long as it is. `low` and `high` are where its foot and its top come to, as amounts or as people
    # write them; else it runs where it ran. An LFO stays one where nothing else is drawn. Switches flip where it
    # crosses the middle.
    module DropMove
      def self.call(song, input)
        move = InvalidInput.under("/move") { Records.read_kept_move(input[:move]) }
        drop = Transfer::Drop.new(move:, how: input.fetch(:how, "fit"), over: input.fetch(:over, false),
                                  backwards: input.fetch(:backwards, false))
        landing = Landing.new(song, input, move.role)
        envelope = landing.envelope
        scale = Envelopes.scale(landing.song, envelope)
        stretch = input[:length_ticks] || own_stretch(landing.home, move, input.fetch(:tick, 0))
        dropped = Dropped.new(landing, drop, limits(move, envelope, scale, input), input.fetch(:tick, 0), stretch)
        words = "drop #{move.name.strip} on #{landing.song.parameter_name(envelope.target)} #{landing.words}"
        [Envelopes.change(landing.song, envelope.id) { dropped.envelope }, words, dropped.notices]
      end

      def self.own_stretch(home, move, tick)
        return move.length_ticks unless home.clip

        length = home.envelope.own_length_ticks || home.clip.length_ticks
        length > tick ? length - tick : move.length_ticks
      end

      # The amounts that its foot and its top come to.
      def self.limits(move, envelope, scale, input)
        rules = envelope.role_rules
        return Roles.full(envelope.role) if scale.steps == 1

        kept = move.limits_for(envelope.role)
        typed = %i[low high].zip(kept).map do |name, current|
          given = input[name]
          next current if given.nil?
          next number(given, rules, name) if given.is_a?(Numeric)

          InvalidInput.under("/#{name}") { rules.parse(scale, given) }
        end
        typed.map(&:to_f)
      end

      def self.number(given, rules, name)
        return given if rules.values.cover?(given)

        raise InvalidInput.of("out_of_range", "/#{name}",
                              "#{given} lies outside #{rules.values}, which this envelope may hold.")
      end
      private_class_method :own_stretch, :limits, :number

      # One envelope with a move dropped on it.
      class Dropped
        SAME = 1e-9

        attr_reader :envelope, :notices

        def initialize(landing, drop, limits, tick, stretch)
          @before, @clip, @scale = landing.envelope, landing.clip, Envelopes.scale(landing.song, landing.envelope)
          @drop, @limits, @tick, @stretch = drop, limits, tick, stretch
          @bpm = landing.song.tempo.bpm_at(0)
          @notices = []
          @envelope = drop.runs_on? && (landing.fresh? || @before.lfo?) ? as_lfo : as_points
        end

        private

        def as_lfo
          source = @drop.lfo(@stretch)
          wished = @drop.over ? @limits.reverse : @limits
          current = [0.0, 1.0].map { |level| @before.amount(level) }
          same = @before.lfo? && current.zip(wished).all? { |one, other| (one - other).abs <= SAME }
          limits = same ? {} : { limits: wished, depth: 1.0 }
          @before.with(source:, points: [], **limits)
        end

        def as_points
          base = @before
          if base.lfo?
            @notices << Notice.new("replaced", [base.id], "its LFO is replaced")
            base = base.with(source: Sources::Drawn::PLAIN, points: [])
          end
          middle = values(base, @drop.points(@stretch, base.role, @scale, @limits, bpm: @bpm)).map do |point|
            point.with(tick: point.tick + @tick)
          end
          base.with(points: spliced(base, middle, @tick + @drop.length(@stretch)))
        end

        # Amounts as values between the envelope's own limits.
        def values(base, points)
          return points if base.plain?

          least, most = Roles.full(base.role)
          line = base.amount_line[0]
          factor = line.zero? ? 0.0 : 1 / line
          beyond = false
          list = points.map do |point|
            value = base.value_of(point.value)
            beyond ||= !value.between?(least - SAME, most + SAME)
            Point.new(tick: point.tick, value: value.clamp(least, most), shape: point.shape.scaled(factor))
          end
          @notices << Notice.new("limited", [base.id], "its limits do not let all of it through") if beyond
          list
        end

        # Where it fills what its clip repeats, nothing else stays.
        def spliced(base, middle, finish)
          return Splice.replace(base.points, @tick, finish, middle) unless ends?(finish)

          @tick.zero? ? middle : Splice.join(Splice.split(base.points, @tick).first, middle)
        end

        def ends?(finish)
          !@clip.nil? && finish >= (@before.own_length_ticks || @clip.length_ticks) && @before.clock != "once"
        end
      end
    end
  end
end
