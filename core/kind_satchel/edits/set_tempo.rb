# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the tempo from a tick on, up to the next tempo.
    module SetTempo
      def self.call(song, input)
        point = Timing::TempoPoint.new(tick: input[:tick], bpm: input[:bpm], shape: input.fetch(:shape, "hold"))
        points = [*song.tempo.points.reject { |other| other.tick == point.tick }, point].sort_by(&:tick)
        [song.with(tempo: Timing::TempoMap.new(points:)), "set the tempo to #{Units::BPM.text(point.bpm)}"]
      end
    end
  end
end
