# frozen_string_literal: true

module Sounds
  # The one-shots of the drum kit.
  module Kit
    extend Synthesis

    module_function

    def kick
      phase = 0.0
      click = noise(1)
      render(0.42) do |t|
        phase += Synthesis::TURN * (46 + (130 * Math.exp(-t * 34))) / Synthesis::RATE
        Math.tanh(1.9 * Math.sin(phase) * Math.exp(-t * 8)) + (0.18 * click.call * Math.exp(-t * 420))
      end
    end

    def snare
      rattle = band(burst(2, 0.3) { |t| Math.exp(-t * 17) }, 2600, 1.1)
      render(0.3) { |t| 0.6 * Math.exp(-t * 26) * (tone(186, t) + (0.5 * tone(331, t))) }
        .zip(rattle).map { |body, air| body + (0.55 * air) }
    end

    def clap
      hits = [0.0, 0.011, 0.023, 0.032]
      band(burst(3, 0.3) { |t| hits.sum { |at| t < at ? 0 : Math.exp(-(t - at) * (at == hits.last ? 18 : 190)) } }, 1300, 0.7)
    end

    def rim = render(0.09) { |t| Math.exp(-t * 75) * (tone(820, t) + (0.7 * tone(1710, t))) }

    def hat(length)
      partials = [2.0, 3.01, 4.16, 5.43, 6.79, 8.21]
      metal = render(length * 3.2) { |t| Math.exp(-t / length * 2.2) * partials.sum { |p| tone(p * 1140, t) <=> 0 } }
      hiss = burst(4, length * 3.2) { |t| Math.exp(-t / length * 2.6) }
      above(above(metal.zip(hiss).map { |a, b| (a * 0.25) + b }, 6500), 6500)
    end

    def shaker = above(band(burst(5, 0.12) { |t| Math.sin(Math::PI * [t / 0.1, 1].min)**2 }, 6200, 0.8), 3000)

    def crate
      thud = render(0.16) { |t| Math.exp(-t * 38) * (tone(243, t) + (0.6 * tone(407, t)) + (0.3 * tone(598, t))) }
      knock = band(burst(6, 0.16) { |t| Math.exp(-t * 160) }, 900, 0.5)
      thud.zip(knock).map { |a, b| a + b }
    end

    def tone(hertz, seconds) = Math.sin(Synthesis::TURN * hertz * seconds)

    def burst(seed, seconds)
      source = noise(seed)
      render(seconds) { |t| source.call * yield(t) }
    end

    private_class_method :tone, :burst
  end
end
