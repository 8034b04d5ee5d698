# frozen_string_literal: true

module KindSatchel
  module Conversion
    # An envelope in another role, giving what it gave: converted against what is really beneath it at each place, all
    # other envelopes counted. A clip is heard in many places, over different things; it is converted for the first of
    # them, and the largest difference over the whole song is stated.
    class RoleChange
      # What straight segments keep to, where shapes cannot stay, as a share of the travel.
      TOLERANCE = 0.0005
      # So many places are looked at between two corners.
      LOOKS = 32

      # @param song [Song]
      # @param home [Directory::Home]
      # @param role [String]
      # @return [Result]
      def self.call(song, home, role) = new(song, home, role).result

      def initialize(song, home, role)
        @song = song
        @home = home
        @envelope = home.envelope
        @role = role
        @scale = song.parameter(@envelope.target).scale
        @inverse = Inverse.new(@scale, role)
      end

      # @return [Result]
      def result
        changed = @envelope.with(role: @role, fader: "follow", limits: Roles.full(@role), depth: 1.0, points:)
        done = Transfer::Lanes.replace(@song, @home, changed)
        Result.new(song: done, difference: Heard::Difference.of(@song, done, [@envelope.target]), separated: [])
      end

      private

      # Without what is beneath nothing is to be kept but the drawing over the knob.
      def points
        return [] if @envelope.points.empty?

        from, to = extent
        before, beneath = resolvers.map { |resolver| resolver.pieces(from, to) }
        level = beneath.size == 1 && beneath[0].still?
        list = level && !@scale.gain? ? mapped(beneath[0]) : chained(before, from, to)
        list.map { |point| point.with(tick: point.tick + @position - from) }
      end

      # Where the envelope is heard first, or by itself: song ticks; `@position` is its own place there.
      def extent
        last = @envelope.points.last.tick + 1
        @run = first_run
        return [@position = 0, last] unless @run

        @position = @run.position(@run.from).floor
        [@run.from, [@run.to, @run.from + last - @position].min.clamp((@run.from + 1)..)]
      end

      def first_run
        return unless @home.clip

        placed = @song.directory.regions_of_clip(@home.clip.id).find do |one|
          !one.region.muted && reaches?(one)
        end or return
        Clocks.enum_for(:each_run, placed.region, @home.clip, @envelope, placed.region.start_tick,
                        placed.region.end_tick).first
      end

      def reaches?(placed) = @home.clip.reaches?(@envelope.target, placed.track)

      # What is heard with the envelope, on, and without it.
      def resolvers
        song = @envelope.on ? @song : Transfer::Lanes.replace(@song, @home, @envelope.with(on: true))
        [Heard::Resolver.new(song, @envelope.target),
         Heard::Resolver.new(song, @envelope.target, except: [@envelope.id])]
      end

      # Over something level each amount is a multiple of the old one and something more, so that shapes stay.
      def mapped(piece)
        zero, one = [0.0, 1.0].map { |amount| new_amount(piece, piece.from, old_value(piece, piece.from, amount)) }
        from = extent[0]
        @envelope.full_points.map do |point|
          value = zero + ((one - zero) * point.value)
          Point.new(tick: point.tick - @position + from, value: limited(value), shape: point.shape.scaled(one - zero))
        end
      end

      # Straight segments between places close enough, thinned.
      def chained(before, from, to)
        without = Heard::Resolver.new(@song, @envelope.target, except: [@envelope.id])
        places = before.flat_map { |piece| looks(piece, from, to) }
        values = places.map { |tick, value| limited(new_amount(without, tick.floor.clamp(from, to - 1), value)) }
        ticks = places.map { |tick, _| tick.round }
        Thinning.keep(ticks, values, TOLERANCE).map do |i|
          Point.new(tick: ticks[i], value: values[i], shape: Shapes::Straight::PLAIN)
        end
      end

      def looks(piece, from, to)
        (0..LOOKS).map { |i| piece.from + ((piece.to - piece.from) * i / LOOKS.to_f) }
                  .grep(from..to).map { |tick| [tick, piece.raw(tick)] }
      end

      def limited(value) = @inverse.limited(value)

      # The value with the old role's amount at a tick where a piece is what lies beneath.
      def old_value(piece, tick, amount)
        value = @envelope.role == "set" ? amount : set_value(piece, tick)
        scales, shifts = factors(piece, tick)
        value = @scale.scaled(value, scales * (@envelope.role == "scale" ? amount : 1.0))
        @scale.shifted(value, shifts + (@envelope.role == "shift" ? amount : 0.0))
      end

      # The new role's amount that makes a wanted value of what lies beneath.
      def new_amount(beneath, tick, wanted) = @inverse.amount(set_value(beneath, tick), *factors(beneath, tick), wanted)

      # All that scales as one factor, all that shifts as one amount.
      def factors(beneath, tick)
        acting = amounts(beneath, tick)
        [acting.fetch("scale", []).reduce(1.0, :*), acting.fetch("shift", []).sum(0.0)]
      end

      def amounts(beneath, tick)
        if beneath.is_a?(Heard::Piece)
          return { "scale" => beneath.scales.map { |span| span.at(tick) }, "shift" => beneath.shifts.map do |span|
            span.at(tick)
          end }
        end

        beneath.amounts.at(tick).group_by do |source, _|
          source.envelope.role
        end.transform_values { |list| list.map(&:last) }
      end

      def set_value(beneath, tick)
        return beneath.set ? beneath.set.at(tick) : beneath.knob if beneath.is_a?(Heard::Piece)

        sets = beneath.amounts.at(tick).select { |source, _| source.envelope.role == "set" }
        knob = beneath.knob_at(tick)
        sets.empty? ? knob : beneath.applied(sets.last[0], knob, sets.last[1], tick)
      end
    end
  end
end
