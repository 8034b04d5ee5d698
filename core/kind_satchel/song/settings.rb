# frozen_string_literal: true

module KindSatchel
  # What can be moved of a move itself, with addresses of its own (`move/<envelope id>/depth`): its depth and its
  # limits; of an LFO the rate and the wave too. The knob of each is what the envelope has; nothing else of the song
  # knows what moves it.
  #
  # Depth is linear. Low and high are linear over the amounts the role may hold. The rate is logarithmic, 1/64 to 32
  # cycles to a quarter note; of a free LFO 0.01 to 40 Hz. The wave goes in steps, in the order of
  # {Sources::Lfo::WAVES}.
  module Settings
    OF_ALL = %w[depth low high].freeze
    OF_LFO = %w[rate wave depth low high].freeze
    NAMES = OF_LFO
    # Cycles to a quarter note.
    RATES = [1 / 64r, 32].freeze
    RATE = Parameter.new(id: "rate", name: "Rate",
                         scale: Scales::Log.new(low: RATES[0].to_f, high: RATES[1].to_f, unit: Units::CYCLES),
                         default: 6 / 11.0, automatable: true, reason: nil)
    FREE_RATE = RATE.with(scale: Scales::Log.new(low: 0.01, high: 40, unit: Units::HERTZ), default: 0.5)
    WAVE = Parameter.new(id: "wave", name: "Wave", scale: Scales::Steps.choice(Sources::Lfo::WAVES), default: 0.0,
                         automatable: true, reason: nil)
    DEPTH = Parameter.new(id: "depth", name: "Depth",
                          scale: Scales::Linear.new(low: 0, high: 100, unit: Units::PERCENT), default: 1.0,
                          automatable: true, reason: nil)
    FIXED = { "rate" => RATE, "wave" => WAVE, "depth" => DEPTH }.freeze
    LIMITS = { "low" => [0, 0.0], "high" => [1, 1.0] }.freeze

    TITLES = NAMES.to_h { |name| [name, name.capitalize] }.freeze

    module_function

    # @param envelope [Envelope]
    # @return [Array<String>]
    def names(envelope) = envelope.lfo? ? OF_LFO : OF_ALL

    # @param name [String]
    # @yieldreturn [Scales::Scale, nil] of what the envelope moves; nil where that is missing
    # @return [Parameter]
    # @raise [NotFound]
    def parameter(envelope, name)
      known!(envelope, name)
      return FREE_RATE if name == "rate" && envelope.source.free?

      FIXED.fetch(name) do
        scale = Scales::Amount.new(rules: envelope.role_rules, scale: yield || DEPTH.scale)
        Parameter.new(id: name, name: TITLES.fetch(name), scale:, default: LIMITS.fetch(name)[1], automatable: true,
                      reason: nil)
      end
    end

    # @return [Float] normalised
    def knob(envelope, name)
      case known!(envelope, name)
      when "depth" then envelope.depth.to_f
      when "rate" then rate_knob(envelope.source)
      when "wave" then WAVE.scale.normalised(Sources::Lfo::WAVES.index(envelope.source.wave))
      else amounts(envelope).normalised(envelope.limits[LIMITS.fetch(name)[0]])
      end
    end

    # @param value [Float] normalised
    # @return [Envelope] with another resting value
    def turned(envelope, name, value)
      case known!(envelope, name)
      when "depth" then envelope.with(depth: value)
      when "rate" then envelope.with(source: rated(envelope.source, value))
      when "wave" then envelope.with(source: envelope.source.with(wave: wave(value)))
      else
        place = LIMITS.fetch(name)[0]
        envelope.with(limits: envelope.limits.each_with_index.map do |limit, i|
          i == place ? amounts(envelope).natural(value) : limit
        end)
      end
    end

    def rate_knob(lfo)
      return FREE_RATE.scale.normalised(lfo.hertz).clamp(0.0, 1.0) if lfo.free?

      RATE.scale.normalised(Timing::PPQ / lfo.cycle_ticks.to_f).clamp(0.0, 1.0)
    end

    def rated(lfo, value)
      lfo.free? ? lfo.with(hertz: FREE_RATE.scale.natural(value)) : lfo.with(cycle_ticks: cycle_ticks(value))
    end

    # @param value [Float] normalised
    # @return [Numeric] ticks a cycle, whole where they are as good as
    def cycle_ticks(value)
      ticks = Timing::PPQ / RATE.scale.natural(value)
      (ticks - ticks.round).abs < 1e-6 ? ticks.round : ticks.clamp(*Sources::Lfo::CYCLE_TICKS.minmax)
    end

    # @return [String]
    def wave(value) = Sources::Lfo::WAVES.fetch(WAVE.scale.step(value))

    def amounts(envelope) = Scales::Amount.new(rules: envelope.role_rules, scale: DEPTH.scale)

    # @raise [NotFound]
    def known!(envelope, name)
      known = names(envelope)
      return name if known.include?(name)

      words = "A move has no #{name.inspect}; it has #{known.join(', ')}."
      words = "A move with points has no #{name}; only an LFO does." if NAMES.include?(name)
      raise NotFound.of("unknown_parameter", "", words)
    end
    private_class_method :amounts, :known!, :rate_knob, :rated
  end
end
