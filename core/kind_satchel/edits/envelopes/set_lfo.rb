# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes an envelope an LFO in place of points, or sets what is given of one: `wave`; `rate` as people write it
    # (1/8, 1/8 triplet, 2 bars; 3.5 Hz for a free one), `cycle_ticks` or `hertz`, or `speed` times as fast as it
    # goes; `free` turns it into the other kind; `skew`, `bend`, `phase`, `seed` (see {Sources::Lfo}). One that shifts
    # begins at a depth of a quarter.
    module SetLfo
      SETTINGS = %i[wave skew bend phase seed].freeze
      RATE_INPUTS = %i[rate cycle_ticks hertz speed].freeze
      # How much of a shift a new one makes.
      SHIFT_DEPTH = 0.25

      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        before = home.envelope
        fits!(song, before)
        source = (before.lfo? ? before.source : Sources::Lfo.plain).with(**changes(song, home, input))
        name = song.parameter_name(before.target)
        return again(song, before.id, source, name, input) if before.lfo?

        depth = before.role == "shift" && before.plain? ? SHIFT_DEPTH : before.depth
        lost = before.points.empty? ? [] : [Notice.new("replaced", [before.id], Envelopes.replaced(before.points.size))]
        [Envelopes.change(song, before.id) do |one|
          one.with(source:, depth:, points: [])
        end, "make #{name} an LFO: #{source.text}", lost]
      end

      # What is set of a rate that something else makes is the rate it rests at.
      def self.again(song, id, source, name, input)
        set, made = Envelopes.change(song, id) { |one| one.with(source:) }, rate_made(song, Address.setting(id, "rate"))
        rate = made ? "resting at #{source.rate_text}" : source.rate_text
        words = "set the LFO of #{name}: #{source.text(rate:)}"
        asked = made && RATE_INPUTS.any? { |key| input[key] }
        [set, words, asked ? [Notice.new("overruled", [id], "its rate is #{made}; this is the one it rests at")] : []]
      end

      # @return [String, nil] what is heard of a rate in place of the one it rests at
      def self.rate_made(song, address)
        return "held by hand" if song.held?(address)
        return "driven by a macro" if song.directory.driver(address)

        moves = song.directory.movers(address).map(&:last) + song.directory.setting_lanes(address)
        "set by a move" if moves.any? { |one| one.on && one.role == "set" }
      end

      def self.fits!(song, envelope)
        parameter = song.parameter?(envelope.target) or return
        parameter.automatable!("/envelope_id")
      end

      def self.changes(song, home, input)
        current = home.envelope.lfo? ? home.envelope.source : Sources::Lfo.plain
        rate = rate_changes(song, home, current, input)
        steady!(song, home.envelope, current) if rate.key?(:hertz) && rate[:hertz].nil? != current.hertz.nil?
        input.slice(*SETTINGS).merge(rate)
      end

      # Free or by note lengths, whichever is typed; turned into the other it goes as fast as before at the tempo of
      # the first tick.
      def self.rate_changes(song, home, current, input)
        return typed(song, home, input[:rate]) if input[:rate]
        return { hertz: input[:hertz] } if input[:hertz]
        return { cycle_ticks: input[:cycle_ticks], hertz: nil } if input[:cycle_ticks]
        return paced(current, input[:speed]) if input[:speed]

        input.key?(:free) && input[:free] != current.free? ? turned(current, song.tempo.bpm_at(0)) : {}
      end

      def self.typed(song, home, text)
        return { cycle_ticks: rate(song, home, text), hertz: nil } unless /hz\s*\z/i.match?(text)

        hertz = Units::HERTZ.parse(text)
        raise InvalidInput.of("bad_value", "/rate", "#{text.inspect} is no rate; write it like 3.5 Hz.") unless hertz

        { hertz: audible!(hertz, "/rate") }
      end

      def self.audible!(hertz, path)
        range = Sources::Lfo::HERTZ
        return hertz if range.cover?(hertz)

        least, most, wish = [*range.minmax, hertz].map { |one| Units::HERTZ.text(one) }
        raise InvalidInput.of("out_of_range", path, "#{wish} lies outside #{least} to #{most} for a free LFO.")
      end

      def self.turned(current, bpm)
        beats = bpm / 60.0
        unless current.free?
          return { hertz: (beats * Timing::PPQ / current.cycle_ticks).clamp(*Sources::Lfo::HERTZ.minmax) }
        end

        { hertz: nil, cycle_ticks: (beats * Timing::PPQ / current.hertz).clamp(*Sources::Lfo::CYCLE_TICKS.minmax) }
      end

      # What moves the rate would mean something else.
      def self.steady!(song, envelope, current)
        return unless song.directory.moved_settings.fetch(envelope.id, []).include?("rate")

        kind = current.free? ? "free" : "of note lengths"
        raise InvalidInput.of("settings_moved", "/rate",
                              "The rate is moved, so it stays #{kind}; take away what moves it first.")
      end

      def self.rate(song, home, text)
        meter = song.meters_of(home.owner).changes.first.meter
        ticks = InvalidInput.under("/rate") do
          Timing::NoteLengths.parse(text, bar_ticks: meter.beat_ticks * meter.beats, beat_ticks: meter.beat_ticks)
        end
        within(ticks, "/rate")
      end

      # So many times as fast as it goes.
      def self.paced(current, speed)
        return { hertz: audible!(current.hertz * speed, "/speed") } if current.free?

        ticks = current.cycle_ticks / speed.to_r
        { cycle_ticks: within(ticks.denominator == 1 ? ticks.to_i : ticks.to_f, "/speed") }
      end

      def self.within(ticks, path)
        range = Sources::Lfo::CYCLE_TICKS
        return ticks if range.cover?(ticks)

        short, long, wish = [*range.minmax, ticks].map { |length| Timing::NoteLengths.text(length) }
        raise InvalidInput.of("out_of_range", path, "#{wish} lies outside #{short} to #{long} for a cycle.")
      end
      private_class_method :again, :rate_made, :fits!, :changes, :rate_changes, :typed, :audible!, :turned, :steady!,
                           :rate, :paced, :within
    end
  end
end
