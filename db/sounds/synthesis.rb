# frozen_string_literal: true

module Sounds
  # A few building blocks: arrays of samples at {RATE}.
  module Synthesis
    RATE = 44_100
    TURN = 2 * Math::PI

    module_function

    # @yieldparam seconds [Float]
    # @return [Array<Float>]
    def render(seconds)
      Array.new((seconds * RATE).round) { |i| yield i.to_f / RATE }
    end

    def noise(seed)
      random = Random.new(seed)
      -> { (random.rand * 2) - 1 }
    end

    # A resonant band of a signal; 12 dB an octave on both sides.
    # @param hertz [Float, Proc] centre, or one that moves with the sample's number
    def band(samples, hertz, width)
      low = high = 0.0
      samples.each_with_index.map do |sample, i|
        centre = hertz.respond_to?(:call) ? hertz.call(i) : hertz
        pull = 2 * Math.sin(Math::PI * [centre, RATE / 6.5].min / RATE)
        low += pull * high
        high += pull * (sample - low - (width * high))
        high
      end
    end

    # What is left above a frequency: one pole.
    def above(samples, hertz)
      keep = Math.exp(-TURN * hertz / RATE)
      low = 0.0
      samples.map { |sample| sample - (low = (sample * (1 - keep)) + (low * keep)) }
    end

    # Peak at -1 dB, the last 3 ms faded.
    def levelled(samples)
      peak = samples.map(&:abs).max
      tail = RATE * 3 / 1000
      samples.each_with_index.map { |sample, i| sample / peak * 0.89 * [(samples.size - i).fdiv(tail), 1].min }
    end
  end
end
