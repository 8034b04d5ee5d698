# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the tempo from a tick on, up to the next point of its lane: at the start of a song whose tempo has no lane its resting tempo,
    # else a point of the lane, which is made where there is none.
    module SetTempo
      def self.call(song, input)
        words = "set the tempo to #{Units::BPM.text(input[:bpm])}"
        lane = Transfer::Lanes.lane(song, Address.tempo, "set")
        return [song.with(bpm: input[:bpm]), words] if lane.nil? && input[:tick].zero? && input[:shape] != "straight"
        raise InvalidInput.of("lfo", "/tick", "The lane of the tempo is an LFO; turn it into points first.") if lane&.lfo?

        # The resting tempo is that of the start.
        song = song.with(bpm: input[:bpm]) if input[:tick].zero?
        made = Transfer::Lanes.with_lane(song, Address.tempo, "set")
        lane = Transfer::Lanes.lane(made, Address.tempo, "set")
        point = TempoLane.point(Timing::TempoPoint.new(tick: input[:tick], bpm: input[:bpm], shape: input.fetch(:shape, "hold")))
        point = point.with(value: lane.value_of(point.value).clamp(0.0, 1.0))
        points = lane.points.reject { |other| other.tick == point.tick }
        points = held_before(points, point.tick) if song.lanes_of(Address.tempo).empty?
        [Envelopes.change(made, lane.id) { |one| one.with(points: [*points, point].sort_by(&:tick)) }, words]
      end

      # A new lane holds what was up to the first point.
      def self.held_before(points, tick) = points.map { |point| point.tick < tick ? point.with(shape: Shapes::Hold::PLAIN) : point }
      private_class_method :held_before
    end
  end
end
