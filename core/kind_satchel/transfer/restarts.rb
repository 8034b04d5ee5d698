# frozen_string_literal: true

module KindSatchel
  module Transfer
    # What LFOs on lanes need where time is put in or taken out, so that what comes after sounds as before: a restart
    # with the phase that stood there. Other restarts move along.
    class Restarts
      # Phases closer than this are the same.
      SAME = 1e-9

      # Of a song in which a stretch is put in at a tick.
      def self.opened(song, tick, length) = new(song, tick, tick, tick + length)

      # Of a song from which a stretch is taken out.
      def self.closed(song, from, to) = new(song, from, to, from)

      # A phase as it is kept: what is not random tells nothing by whole cycles.
      def self.phase_record(song, envelope, phase)
        (random?(song, envelope) ? phase : phase % 1).round(12)
      end

      # Whether two phases of a wave sound alike.
      def self.same?(song, envelope, one, other)
        apart = random?(song, envelope) ? one - other : ((one - other + 0.5) % 1) - 0.5
        apart.abs < SAME
      end

      # Whether it is random, or may come to be.
      def self.random?(song, envelope)
        moved = song.directory.moved_settings.fetch(envelope.id, [])
        envelope.source.wave == Sources::Lfo::RANDOM || moved.include?("wave")
      end
      private_class_method :random?

      # @param from [Integer] up to where all stays
      # @param to [Integer] from where on all moves
      # @param goal [Integer] where that comes to
      def initialize(song, from, to, goal)
        @song = song
        @from, @to, @goal = from, to, goal
      end

      # @param lane [Envelope]
      # @return [Envelope]
      def on(lane)
        return lane if @to.zero? && @goal.zero?

        kept = lane.source.restarts.select { |tick, _| tick < @from }
        moved = lane.source.restarts.filter_map { |tick, phase| [tick + @goal - @to, phase] if tick >= @to }
        moved = [[@goal, phase(lane)], *moved] unless moved.first && moved.first[0] == @goal
        restarts = kept + moved
        restarts.delete([@goal, moved[0][1]]) if goes_on?(lane, kept, moved[0][1])
        lane.with(source: lane.source.with(restarts: restarts.first(Sources::Lfo::MOST_RESTARTS)))
      end

      private

      def phase(lane)
        live = Heard::LiveMove.of(@song, lane)
        found = live ? live.phase(Clocks::Run.new(0, 0, @song.length_ticks), @to) : lane.source.phase_at(@to)
        Restarts.phase_record(@song, lane, found)
      end

      # Whether it would be there by itself: a wave of one pace, and a stretch of whole cycles.
      def goes_on?(lane, kept, phase)
        return false if Heard::LiveMove.of(@song, lane)

        Restarts.same?(@song, lane, lane.source.with(restarts: kept).phase_at(@goal), phase)
      end
    end
  end
end
