# frozen_string_literal: true

module KindSatchel
  module Edits
    # Drops a {KeptMove} on an envelope (`envelope_id`), or on a parameter (`address`) in a clip (`clip_id`) or on its lane, where it makes
    # an envelope if there is none of that role. It lies from `tick` on over `length_ticks`, by default the rest of the clip, or the
    # move's own length on a lane; `how` fits it there, repeats it to fill, or leaves it as long as it is. `low` and `high`
    # are where its foot and its top come to, as amounts or as people write them; else it runs where it ran. An LFO stays one
    # where nothing else is drawn. Switches flip where it crosses the middle.
    module DropMove
      def self.call(song, input)
        move = Moves.at("/move") { Records.read_kept_move(input[:move]) }
        drop = Transfer::Drop.new(move:, how: input.fetch(:how, "fit"), over: input.fetch(:over, false), backwards: input.fetch(:backwards, false))
        made, home, fresh = place(song, move, input)
        envelope = home.envelope
        scale = Moves.scale(made, envelope)
        stretch = input[:length_ticks] || own_stretch(home, move, input.fetch(:tick, 0))
        limits = limits(move, drop, envelope, scale, input)
        dropped = Dropped.new(made, home, fresh, drop, scale, limits, input.fetch(:tick, 0), stretch)
        where = home.clip ? "in #{home.clip.name}" : "of #{made.owner_name(envelope.target)}"
        words = "drop #{move.name.strip} on #{made.parameter_name(envelope.target)} #{where}"
        [Moves.change(made, envelope.id) { dropped.envelope }, words, dropped.tells]
      end

      # @return [Array(Song, Directory::Home, Boolean)] the envelope, and whether it was made for this
      def self.place(song, move, input)
        return [song, song.directory.envelope(input[:envelope_id]), false] if input[:envelope_id]
        raise InvalidInput.of("bad_request", "/address", "Say on which envelope or parameter the move is dropped.") unless input[:address]

        address = Moves.target(song, input[:address])
        there = input[:clip_id] ? song.clip(input[:clip_id]).envelopes.select { |one| one.target == address } : song.lanes_of(address)
        role = role(song, address, move, there, input)
        known = there.find { |one| one.role == role }
        return [song, song.directory.envelope(known.id), false] if known

        inputs = { address: input[:address], role:, clip_id: input[:clip_id] }.compact
        made, = (input[:clip_id] ? EmbedEnvelope : AddLane).call(song, inputs)
        [made, made.directory.envelope("envelope-#{song.next_id}"), true]
      end

      # The one asked for; that of the only envelope there is; its own, where the parameter takes it.
      def self.role(song, address, move, there, input)
        return Moves.role(song, address, input) if input[:role]
        return there[0].role if there.size == 1

        song.parameter(address).role_fits!(move.role, "/role")
        move.role
      rescue InvalidInput
        raise if input[:role]

        "set"
      end

      def self.own_stretch(home, move, tick)
        return move.length_ticks unless home.clip

        length = home.envelope.own_length_ticks || home.clip.length_ticks
        length > tick ? length - tick : move.length_ticks
      end

      # The amounts that its foot and its top come to.
      def self.limits(move, drop, envelope, scale, input)
        rules = envelope.role_rules
        return Roles.full(envelope.role) if scale.steps == 1

        kept = move.limits_for(envelope.role)
        typed = %i[low high].zip(kept).map do |name, standing|
          given = input[name]
          next standing if given.nil?
          next number(given, rules, name) if given.is_a?(Numeric)

          Moves.at("/#{name}") { rules.parse(scale, given) }
        end
        drop.over && drop.runs_on? ? typed : typed.map(&:to_f)
      end

      def self.number(given, rules, name)
        return given if rules.values.cover?(given)

        raise InvalidInput.of("out_of_range", "/#{name}", "#{given} lies outside #{rules.values}, which this envelope may hold.")
      end
      private_class_method :place, :role, :own_stretch, :limits, :number

      # One envelope with a move dropped on it.
      class Dropped
        SAME = 1e-9

        attr_reader :envelope, :tells

        def initialize(song, home, fresh, drop, scale, limits, tick, stretch)
          @before, @clip = home.envelope, home.clip
          @fresh, @drop, @scale, @limits, @tick, @stretch = fresh, drop, scale, limits, tick, stretch
          @bpm = song.tempo.bpm_at(0)
          @tells = []
          @envelope = drop.runs_on? && (fresh || @before.lfo?) ? as_lfo : as_points
        end

        private

        def as_lfo
          source = @drop.lfo(@stretch)
          wished = @drop.over ? @limits.reverse : @limits
          standing = [0.0, 1.0].map { |level| @before.amount(level) }
          same = @before.lfo? && standing.zip(wished).all? { |one, other| (one - other).abs <= SAME }
          limits = same ? {} : { limits: wished, depth: 1.0 }
          @before.with(source:, points: [], **limits)
        end

        def as_points
          base = @before
          if base.lfo?
            @tells << Tell.new("replaced", [base.id], "its LFO is replaced")
            base = base.with(source: Sources::Drawn::PLAIN, points: [])
          end
          middle = values(base, @drop.points(@stretch, base.role, @scale, @limits, bpm: @bpm)).map { |point| point.with(tick: point.tick + @tick) }
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
          @tells << Tell.new("limited", [base.id], "its limits do not let all of it through") if beyond
          list
        end

        # Where it fills what its clip repeats, nothing else stays.
        def spliced(base, middle, finish)
          return Splice.replace(base.points, @tick, finish, middle) unless ends?(finish)

          @tick.zero? ? middle : Splice.join(Splice.split(base.points, @tick).first, middle)
        end

        def ends?(finish) = !@clip.nil? && finish >= (@before.own_length_ticks || @clip.length_ticks) && @before.clock != "once"
      end
    end
  end
end
