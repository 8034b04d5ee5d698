# frozen_string_literal: true

module KindSatchel
  module Heard
    # One setting of a move in a frame (see {Settings}), in its natural values: a depth as 0..1, limits as amounts, a rate in cycles to
    # a quarter note (of a free LFO in Hz), a wave by name.
    class Setting
      # @param frame [Frame]
      # @param envelope [Envelope]
      # @param name [String]
      def initialize(frame, envelope, name)
        @envelope = envelope
        @name = name
        address = Address.setting(envelope.id, name)
        @resolver = frame.resolver(address) if frame.song.directory.moved_settings.fetch(envelope.id, []).include?(name)
        @resolver = nil if @resolver&.idle?
      end

      # Whether anything acts on it anywhere.
      def moved? = !@resolver.nil?

      attr_reader :resolver

      # What it is where nothing moves it: the very number that was set, or what a hand holds it at.
      def resting
        held = @envelope.held[@name]
        return natural(held) if held

        case @name
        when "depth" then @envelope.depth
        when "low" then @envelope.limits[0]
        when "high" then @envelope.limits[1]
        when "rate" then @envelope.source.hertz || (Timing::PPQ / @envelope.source.cycle_ticks.to_f)
        else @envelope.source.wave
        end
      end

      def at(tick) = moved? ? natural(@resolver.at(tick)) : resting

      # Of a setting that is a number along its travel.
      # @return [Array<Arc>] in order, without gaps
      def arcs(from, to)
        return [Level.new(from, to, resting)] unless moved?

        low, high = natural(0.0), natural(1.0)
        Within.arcs(@resolver, from, to).map { |arc| low.zero? && high == 1 ? arc : arc.lined(arc.from, arc.to, high - low, low) }
      end

      # What it stays between.
      # @return [Array(Float, Float)]
      def bounds(from, to)
        return [resting, resting] unless moved?

        Crowd.new(@resolver).between(from, to).map { |value| natural(value) }
      end

      # Of the wave.
      # @return [Array<Array(Numeric, Numeric, String)>] from, to, wave
      def waves(from, to)
        return [[from, to, resting]] unless moved?

        stretches = @resolver.pieces(from, to).flat_map { |piece| Outline.of_pieces([piece]).each_slice(2).each_cons(2).to_a }
        stretches.filter_map { |(start, value), (finish, _)| [start, finish, natural(value)] if finish > start }
      end

      private

      def natural(value)
        case @name
        when "depth" then value
        when "rate" then (@envelope.source.free? ? Settings::FREE_RATE : Settings::RATE).scale.natural(value)
        when "wave" then Settings.wave(value)
        else
          allowed = @envelope.role_rules.values
          allowed.min + (value * (allowed.max - allowed.min))
        end
      end
    end

    # The pieces of a parameter as arcs that stay inside its travel: cut exactly where the limits begin to hold, level there.
    module Within
      # What is narrower is not looked for, in ticks.
      NARROW = 1 / 65_536.0

      module_function

      # @param resolver [Resolver] of a parameter without steps
      # @return [Array<Arc>] normalised, in order, without gaps
      def arcs(resolver, from, to) = resolver.pieces(from, to).flat_map { |piece| parts(piece) }

      def parts(piece)
        return [Level.new(piece.from, piece.to, piece.at(piece.from))] if piece.still?

        places = [piece.from, *crossings(piece), piece.to]
        places.each_cons(2).filter_map do |start, finish|
          next unless finish > start

          value = piece.raw((start + finish) / 2.0)
          value.between?(0.0, 1.0) ? Free.new(piece, start, finish) : Level.new(start, finish, value.clamp(0.0, 1.0))
        end
      end

      def crossings(piece)
        jet = piece.jet(piece.from, piece.to)
        return [] if jet.low >= 0 && jet.high <= 1

        known = ->(a, b) { piece.jet(a, b) }
        [0.0, 1.0].flat_map { |limit| Crossings.of(piece.from.to_f, piece.to.to_f, NARROW, known) { |tick| piece.raw(tick) - limit } }.sort
      end

      # A piece between its limits.
      class Free
        include Arc

        def initialize(piece, from, to)
          @piece, @from, @to = piece, from, to
          @source = piece.set&.source
        end

        def straight? = @piece.straight?
        def at(tick) = @piece.raw(tick).clamp(0.0, 1.0)
        def jet(from, to) = @piece.jet(from, to)
      end
    end

    # Where a smooth curve crosses nothing, found for certain: by bounds of its slope and bend, not by samples.
    module Crossings
      HALVINGS = 60

      module_function

      # @param narrow [Float] two crossings closer together than this may be missed
      # @param jet [#call] what is known of the curve, but for a constant, between two places
      # @yieldparam place [Float]
      # @yieldreturn [Float]
      # @return [Array<Float>] in order
      def of(from, to, narrow, jet, &curve)
        list = []
        look(from, to, curve.call(from), curve.call(to), narrow, jet, curve, list)
        list
      end

      def look(from, to, start, finish, narrow, jet, curve, list)
        width = to - from
        bend = jet.call(from, to).bend * width * width
        rise = finish - start
        changes = (start.positive? && finish.negative?) || (start.negative? && finish.positive?)
        if rise.abs > bend || width <= narrow
          list << root(from, to, start, curve) if changes
        elsif changes || [start.abs, finish.abs].min <= bend / 8
          middle = (from + to) / 2
          value = curve.call(middle)
          look(from, middle, start, value, narrow, jet, curve, list)
          list << middle if value.zero?
          look(middle, to, value, finish, narrow, jet, curve, list)
        end
      end

      def root(from, to, start, curve)
        HALVINGS.times do
          middle = (from + to) / 2
          break if middle <= from || middle >= to

          curve.call(middle).negative? == start.negative? ? from = middle : to = middle
        end
        to
      end
      private_class_method :look, :root
    end
  end
end
