# frozen_string_literal: true

module KindSatchel
  # The lane of the tempo as it comes from lists of tempos, of older songs and of files.
  module TempoLane
    ID = "tempo-lane"

    module_function

    # @param tempo [Timing::TempoPoint]
    # @return [Point]
    def point(tempo)
      scale = Owners::OfSong::TEMPO.scale
      Point.new(tick: tempo.tick, value: scale.normalised(tempo.bpm),
                shape: tempo.shape == "straight" ? Shapes::Straight::PLAIN : Shapes::Hold::PLAIN)
    end

    # @param tempos [Array<Timing::TempoPoint>]
    # @return [Array<Point>] the last of which holds
    def points(tempos)
      tempos.each_with_index.map { |one, i| point(i + 1 < tempos.size ? one : one.with(shape: "hold")) }
    end

    # @param points [Array<Point>]
    # @return [Envelope]
    def fresh(points) = Envelope.fresh(id: ID, target: Address.tempo, points:, clock: "once")

    # The tempo of a point, as it was typed.
    # @return [Numeric] quarter notes per minute
    def bpm(value)
      Owners::OfSong::TEMPO.scale.natural(value).round(8).clamp(*Timing::TempoPoint::RANGE.minmax.map(&:to_f))
    end

    # What a lane of held and straight segments comes to; nil for any other, and where two points stand on one tick.
    # @param points [Array<Point>]
    # @return [Timing::TempoMap, nil]
    def map(points)
      plain = points.each_cons(2).all? { |one, other| other.tick > one.tick } && points.all? do |one|
        simple?(one.shape)
      end
      return unless plain && points.any?

      list = points.each_with_index.map do |one, i|
        straight = one.shape.is_a?(Shapes::Straight) && i + 1 < points.size
        Timing::TempoPoint.new(tick: one.tick, bpm: bpm(one.value), shape: straight ? "straight" : "hold")
      end
      list.unshift(list[0].with(tick: 0, shape: "hold")) if list[0].tick.positive?
      Timing::TempoMap.new(points: list)
    end

    def simple?(shape) = shape.is_a?(Shapes::Hold) || shape.is_a?(Shapes::Straight)
  end
end
