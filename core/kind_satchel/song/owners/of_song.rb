# frozen_string_literal: true

module KindSatchel
  module Owners
    # The song itself, with its tempo: moved by a lane on the master, by carriers and macros.
    class OfSong
      LOW, HIGH = Timing::TempoPoint::RANGE.minmax
      private_constant :LOW, :HIGH

      TEMPO = Parameter.new(id: "tempo", name: "Tempo",
                            scale: Scales::Tempo.new(low: LOW, high: HIGH, unit: Units::BPM),
                            default: (120 - LOW) / (HIGH - LOW).to_f, automatable: true, reason: nil)

      def initialize(song, address)
        @song = song
        @address = address
      end

      def name = "the song"

      def parameter
        return TEMPO if @address == Address.tempo

        raise NotFound.of("unknown_parameter", "",
                          "The song itself has a tempo, #{Address.tempo}; it has no #{@address}.")
      end

      def knob = parameter.scale.normalised(@song.bpm)
      def held_value = @song.held_bpm && parameter.scale.normalised(@song.held_bpm)
      def turned(value) = @song.with(bpm: bpm(value))
      def held(value) = @song.with(held_bpm: value && bpm(value))
      def tracks = []
      def lanes = lane_track.nil? ? [] : lane_track.lanes.select { |lane| lane.target == @address }
      def lane_track = @song.tracks.last

      private

      # As it is typed, as far as a knob can tell.
      def bpm(value)
        parameter.scale.natural(value).round(9).then { |number| number == number.round ? number.round : number }
      end
    end
  end
end
