# frozen_string_literal: true

module KindSatchel
  module Perform
    # The envelope a pass writes into, made ready: on, as points, with full limits. One that was off is not heard, so
    # it does not come back but starts as a new one; what moves its settings would make something else of what is
    # written, so it is taken in.
    module PassEnvelope
      module_function

      # @param pass [WrittenPass]
      # @param envelope [Envelope] of the pass's song
      # @param made [Boolean] whether this pass made it
      # @return [Array(WrittenPass, Envelope)]
      def ready(pass, envelope, made)
        song = pass.song
        now = envelope.on ? envelope : renewed(song, envelope)
        pass, now = plain(pass, now)
        pass = pass.noting(replaced: [now.id]) unless envelope.on
        pass = pass.with(bases: { now.id => { "made" => made, "points" => now.points }, **pass.bases })
        return [pass, now] if now.equal?(envelope)

        [pass.with(song: Transfer::Lanes.change(pass.song, now.id) { now }), now]
      end

      # A move as it is heard over all of a region, in one run.
      # @param region [Region] of the clip it lives in
      # @return [Array(WrittenPass, Envelope)]
      def unrolled(pass, region, envelope)
        return [pass, envelope] if envelope.clock == "once"

        song = pass.song
        heard = Conversion::Written.in_region(song, region, song.clip(region.clip_id), envelope)
        points = Conversion::Written.shifted(heard, region.offset_ticks - region.start_tick)
        base = { **pass.bases[envelope.id], "clock" => [envelope.clock, envelope.own_length_ticks] }
        changed = song.directory.envelope(envelope.id).envelope.with(clock: "once", own_length_ticks: nil, points:)
        song = Transfer::Lanes.change(song, envelope.id) { changed }
        [pass.with(song:, bases: { **pass.bases, envelope.id => base }), changed]
      end

      def renewed(song, envelope)
        envelope.bare.with(on: true, points: Transfer::Lanes.resting(song, envelope.target, envelope.role).points)
      end

      def plain(pass, envelope)
        home = pass.song.directory.envelopes[envelope.id]
        standing = home && envelope.equal?(home.envelope)
        plain = standing ? Conversion::Drawn.taken_in(pass.song, home) : envelope
        pass = stilled(pass, envelope)
        [pass, plain.lfo? ? plain.drawn(Clocks.extent(pass.song, home)) : plain.unlimited]
      end

      # What moves settings of the envelope is switched off.
      def stilled(pass, envelope)
        movers = pass.song.directory.envelopes.each_value.map(&:envelope).select do |other|
          other.on && other.target.setting? && other.target.device_id == envelope.id
        end
        name = pass.song.parameter_name(envelope.target) if movers.any?
        song = movers.reduce(pass.song) do |now, mover|
          Transfer::Lanes.change(now, mover.id) { mover.with(on: false) }
        end
        pass.noting(stilled: movers.map { |mover| "#{mover.target.parameter_id} of #{name}" }).with(song:)
      end
      private_class_method :renewed, :plain, :stilled
    end
  end
end
