# frozen_string_literal: true

module KindSatchel
  module Heard
    # About how long it takes to work out what is heard of parameters, told before any of it is worked out: by the
    # points and cycles that act, those of all that moves their settings among them. It tells what is heavy from what
    # is not; it is no bound.
    class Effort
      # Milliseconds, as measured for this machine's kind (`bin/bench growth`): a point; a cycle that nothing moves;
      # one whose settings are moved; one of what moves a rate.
      POINT = 0.01
      STEADY = 0.05
      MOVED = 0.8
      MOVER = 0.4
      # A rate that is moved may be so many times what is set.
      QUICKER = 2

      def initialize(song)
        @song = song
        @known = {}
      end

      # @param address [Address]
      # @return [Float] milliseconds
      def of(address, from, to)
        @known[[address, from, to]] ||= worked_out(address, from, to)
      end

      # Of one envelope that acts.
      # @param region [Region, nil] nil for a lane
      # @return [Float] milliseconds
      def share(envelope, region, from, to)
        moved = @song.directory.moved_settings.fetch(envelope.id, [])
        settings = moved.sum { |name| setting(envelope, region, name, from, to) }
        unless envelope.lfo?
          drawn = envelope.drawn_cycles * (to - from) * (moved.any? ? MOVED : STEADY)
          return settings + (envelope.points.size * POINT) + drawn
        end

        settings + (cycles(envelope, moved, from, to) * (moved.any? || envelope.live? ? MOVED : STEADY))
      end

      private

      def worked_out(address, from, to)
        return 0.0 unless to > from

        driver = @song.held_value(address).nil? ? @song.directory.driver(address) : nil
        cost = driver ? of(driver.macro, from, to) : 0.0
        Acting.new(@song, address).each_share(from, to) do |envelope, region, start, finish|
          cost += share(envelope, region, start, finish)
        end
        cost
      end

      # A rate counts from where its wave begins to run; what is worked out already is not worked out again.
      def setting(envelope, region, name, from, to)
        address = Address.setting(envelope.id, name)
        return of(address, from, to) unless name == "rate"

        integral = Evaluation.of(@song, region).integrals[envelope.id]
        start = [region ? region.start_tick - region.offset_ticks : 0, integral&.reached].compact.max
        of(address, start, to) * (MOVER / STEADY)
      end

      def cycles(envelope, moved, from, to)
        source = envelope.source
        seconds = @song.tempo.seconds_at(to) - @song.tempo.seconds_at(from) if source.free?
        count = seconds ? source.hertz * seconds : (to - from).fdiv(source.cycle_ticks)
        moved.include?("rate") ? count * QUICKER : count
      end
    end

    # So much work as is done before a coarser answer is given.
    class Budget
      # Of what is only tried, in milliseconds.
      TRIED = 100.0

      # What there was no room for.
      # @return [Array<Address>]
      attr_reader :refused

      def initialize(song, milliseconds = TRIED)
        @effort = Effort.new(song)
        @left = milliseconds
        @refused = []
      end

      # Whether there is room for what is heard of a parameter over a stretch; then so much of it is gone.
      def room?(address, from, to) = taken?(@effort.of(address, from, to)) || !(@refused |= [address])

      # The same for what one envelope does.
      def room_for?(envelope, region, from, to) = taken?(@effort.share(envelope, region, from, to))

      private

      def taken?(cost)
        return false if cost > @left

        @left -= cost
        true
      end
    end
  end
end
