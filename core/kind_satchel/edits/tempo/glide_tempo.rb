# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets the tempo go from one value to another over a stretch of song, as a shape does it, and then back to what it
    # was, at once, or over `back_ticks`; outside of that nothing changes.
    module GlideTempo
      def self.call(song, input)
        from, to = input.values_at(:from_tick, :to_tick)
        raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from

        first, last = input.fetch(:from_bpm) { song.tempo.bpm_at(from) }, input[:to_bpm]
        made = Transfer::Lanes.with_lane(song, Address.tempo, "set")
        lane = Transfer::Lanes.lane(made, Address.tempo, "set")
        if lane.lfo?
          raise InvalidInput.of("lfo", "/from_tick",
                                "The lane of the tempo is an LFO; turn it into points first.")
        end

        glide = [point(from, first, shape(input)), *ending(song, input)].map do |one|
          one.with(value: lane.value_of(one.value).clamp(0.0, 1.0))
        end
        points = Splice.replace(lane.points, from, glide.last.tick, glide)
        texts = [first, last].map { |one| Units::BPM.text(one) }
        [Envelopes.change(made, lane.id) { |one| one.with(points:) }, "let the tempo go from #{texts.join(' to ')}"]
      end

      # Where it arrives, and where it is back at what it was.
      def self.ending(song, input)
        to, back = input[:to_tick], input.fetch(:back_ticks, 0)
        return [point(to, input[:to_bpm], Shapes::Hold::PLAIN)] unless back.positive?

        [point(to, input[:to_bpm], Shapes::Straight::PLAIN),
         point(to + back, song.tempo.bpm_at(to + back), Shapes::Hold::PLAIN)]
      end

      def self.shape(input)
        case input.fetch(:shape, "straight")
        when "curved" then Shapes.of({ "shape" => "curved", "curve" => 0.4 })
        when "ess" then Shapes.of({ "shape" => "ess", "curve" => 0.5 })
        else Shapes::Straight::PLAIN
        end
      end

      def self.point(tick, bpm, shape) = Point.new(tick:, value: Owners::OfSong::TEMPO.scale.normalised(bpm), shape:)
      private_class_method :ending, :shape, :point
    end
  end
end
