# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the tempo from a tick on, up to the next point of its lane: at the start of a song whose tempo has no lane
    # its resting tempo, else a point of the lane, which is made where there is none.
    module SetTempo
      def self.call(song, input)
        words = "set the tempo to #{Units::BPM.text(input[:bpm])}"
        lane = Transfer::Lanes.lane(song, Address.tempo, "set")
        return [song.with(bpm: input[:bpm]), words] if lane.nil? && input[:tick].zero? && input[:shape] != "straight"
        if lane&.lfo?
          raise InvalidInput.of("lfo", "/tick",
                                "The lane of the tempo is an LFO; turn it into points first.")
        end

        # The resting tempo is that of the start.
        song = song.with(bpm: input[:bpm]) if input[:tick].zero?
        made = Transfer::Lanes.with_lane(song, Address.tempo, "set")
        lane = Transfer::Lanes.lane(made, Address.tempo, "set")
        points = song.lanes_of(Address.tempo).empty? ? held_before(lane.points, input[:tick]) : lane.points
        [Envelopes.change(made, lane.id) { |one| one.with(points: with_point(points, point(lane, input))) }, words]
      end

      def self.point(lane, input)
        shape = input.fetch(:shape, "hold")
        point = TempoLane.point(Timing::TempoPoint.new(tick: input[:tick], bpm: input[:bpm], shape:))
        point.with(value: lane.value_of(point.value).clamp(0.0, 1.0))
      end

      # It takes the place of one on its tick.
      def self.with_point(points, point) = [*points.reject { |other| other.tick == point.tick }, point].sort_by(&:tick)

      # A new lane holds what was up to the first point.
      def self.held_before(points, tick)
        points.map { |point| point.tick < tick ? point.with(shape: Shapes::Hold::PLAIN) : point }
      end
      private_class_method :point, :with_point, :held_before
    end
  end
end
