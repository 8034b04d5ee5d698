# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes an envelope an LFO in place of points, or sets what is given of one: `wave`; `rate` as people write it (1/8, 1/8 triplet,
    # 2 bars), `cycle_ticks`, or `speed` times as fast as it goes; `skew`, `bend`, `phase`, `seed` (see {Sources::Lfo}). One that
    # shifts begins at a depth of a quarter.
    module SetLfo
      SETTINGS = %i[wave cycle_ticks skew bend phase seed].freeze
      # How much of a shift a new one makes.
      SHIFT_DEPTH = 0.25

      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        before = home.envelope
        fits!(song, before)
        source = (before.lfo? ? before.source : Sources::Lfo.plain).with(**changes(song, home, input))
        name = song.parameter_name(before.target)
        return [Moves.change(song, before.id) { |one| one.with(source:) }, "set the LFO of #{name}: #{source.text}"] if before.lfo?

        depth = before.role == "shift" && before.plain? ? SHIFT_DEPTH : before.depth
        lost = before.points.empty? ? [] : [Tell.new("replaced", [before.id], "its #{Moves.count(before.points.size, 'point')} are replaced")]
        [Moves.change(song, before.id) { |one| one.with(source:, depth:, points: []) }, "make #{name} an LFO: #{source.text}", lost]
      end

      def self.fits!(song, envelope)
        parameter = song.parameter?(envelope.target) or return
        parameter.automatable!("/envelope_id")
      end

      def self.changes(song, home, input)
        typed = { cycle_ticks: rate(song, home, input[:rate]) } if input[:rate]
        typed = { cycle_ticks: paced(home.envelope, input[:speed]) } if input[:speed]
        input.slice(*SETTINGS).merge(typed || {})
      end

      def self.rate(song, home, text)
        meter = song.meters_of(home.owner).changes.first.meter
        ticks = Moves.at("/rate") { Timing::NoteLengths.parse(text, bar_ticks: meter.beat_ticks * meter.beats, beat_ticks: meter.beat_ticks) }
        within(ticks, "/rate")
      end

      # So many times as fast as it goes.
      def self.paced(envelope, speed)
        standing = envelope.lfo? ? envelope.source : Sources::Lfo.plain
        ticks = standing.cycle_ticks / speed.to_r
        within(ticks.denominator == 1 ? ticks.to_i : ticks.to_f, "/speed")
      end

      def self.within(ticks, path)
        range = Sources::Lfo::CYCLE_TICKS
        return ticks if range.cover?(ticks)

        short, long, wish = [*range.minmax, ticks].map { |length| Timing::NoteLengths.text(length) }
        raise InvalidInput.of("out_of_range", path, "#{wish} lies outside #{short} to #{long} for a cycle.")
      end
      private_class_method :fits!, :changes, :rate, :paced, :within
    end
  end
end
