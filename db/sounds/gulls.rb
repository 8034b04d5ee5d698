# frozen_string_literal: true

module Sounds
  # A two-bar loop at 92 BPM: short calls, half voice and half gull, over a hiss of water.
  module Gulls
    extend Synthesis

    BPM = 92
    BEAT = 60.0 / BPM
    # [beat, length in beats, pitch in hertz at the start and the end, two formants]
    CALLS = [
      [0.0, 0.45, 440, 392, 730, 1090], [0.75, 0.2, 523, 494, 570, 840], [1.5, 0.7, 587, 440, 440, 1020],
      [3.0, 0.3, 392, 440, 300, 870], [3.5, 0.4, 440, 330, 730, 1090], [4.75, 0.2, 523, 523, 490, 1350],
      [5.0, 0.9, 659, 494, 730, 1090], [6.75, 0.2, 494, 440, 300, 870], [7.0, 0.75, 440, 294, 570, 840]
    ].freeze

    module_function

    def loop
      mix = surf
      CALLS.each do |beat, *call|
        start = (beat * BEAT * Synthesis::RATE).round
        voice(*call).each_with_index { |sample, i| mix[start + i] += sample if start + i < mix.size }
      end
      mix
    end

    def voice(beats, from, to, first, second)
      length = beats * BEAT
      phase = 0.0
      source = render(length) do |t|
        hertz = from * ((to.to_f / from)**(t / length)) * (1 + (0.012 * Math.sin(Synthesis::TURN * 6.2 * t)))
        phase = (phase + (hertz / Synthesis::RATE)) % 1.0
        ((2 * phase) - 1) * (Math.sin(Math::PI * (t / length))**0.6)
      end
      band(source, first, 0.18).zip(band(source, second, 0.15)).map { |a, b| a + (0.8 * b) }
    end

    def surf
      source = noise(7)
      length = 8 * BEAT
      band(render(length) { |t| source.call * 0.035 * (1.2 - Math.cos(Synthesis::TURN * t / length)) }, 1500, 1.2)
    end

    private_class_method :voice, :surf
  end
end
