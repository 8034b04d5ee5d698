# frozen_string_literal: true

module KindSatchel
  module Follow
    # How many beats a recorded loop has, and so its tempo: of the counts that fit its length the one on whose beats
    # most begins to sound. A guess, to be set right by hand.
    class TempoGuess
      TEMPOS = (60.0..200.0)
      # Tempos about this one are likelier, by how many octaves they are away (common practice, no source).
      USUAL_BPM = 110.0
      OCTAVES = 0.7
      # How much likelier counts are that make whole phrases.
      PHRASES = { 16 => 1.15, 8 => 1.1, 4 => 1.0, 2 => 0.75, 1 => 0.6 }.freeze
      # What begins so near a beat is on it.
      NEAR_SECONDS = 0.03
      # Nothing is louder than this share of the loudest where it is silent.
      SILENCE = 0.05

      # @param energy [Array<Float>] mean squares of even stretches, 0..1
      # @param hop_seconds [Float] the length of a stretch
      # @param seconds [Float] of the whole recording
      def initialize(energy, hop_seconds, seconds)
        @energy = energy
        @hop = hop_seconds
        @seconds = seconds
      end

      # @return [Integer] at least 1
      def beats = @beats ||= counts.max_by { |count| score(count) } || [(@seconds * USUAL_BPM / 60).round, 1].max

      # @return [Float] quarter notes per minute
      def bpm = (beats * 60 / @seconds).clamp(Timing::TempoPoint::RANGE.min.to_f, Timing::TempoPoint::RANGE.max.to_f)

      # @return [Float] seconds at which the first sound begins
      def first_seconds
        loudest = @energy.max || 0
        place = @energy.index { |level| level > loudest * (SILENCE**2) } || 0
        place * @hop
      end

      private

      def counts = ((@seconds * TEMPOS.min / 60).ceil..(@seconds * TEMPOS.max / 60).floor).to_a.reject(&:zero?)

      def score(count)
        octaves = Math.log2(count * 60 / @seconds / USUAL_BPM)
        phrase = PHRASES.find { |size, _| (count % size).zero? }.last
        (on_beats(count) + 0.001) * phrase * Math.exp(-(octaves**2) / (2 * (OCTAVES**2)))
      end

      # How much more begins on the beats than elsewhere.
      def on_beats(count)
        near = (NEAR_SECONDS / @hop).ceil
        sum = (0...count).sum do |beat|
          place = (beat * @seconds / count / @hop).round
          onsets[[place - near, 0].max..(place + near)].to_a.max || 0.0
        end
        sum / count / (mean + 1e-9)
      end

      def mean = @mean ||= onsets.empty? ? 0.0 : onsets.sum / onsets.size

      # By how much the level rises from stretch to stretch, in logarithms.
      def onsets
        @onsets ||= begin
          levels = @energy.map { |level| Math.log(1 + (level * 10_000)) }
          [levels.first || 0.0, *levels.each_cons(2).map { |before, after| [after - before, 0.0].max }]
        end
      end
    end
  end
end
