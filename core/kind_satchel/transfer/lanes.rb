# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Stretches of lane that follow the regions under them. Edges are kept level: outside the stretches nothing changes,
    # and where one was taken away the value before it holds.
    module Lanes
      # One stretch on its way: `points` from tick 0, `from` and `to` in song ticks.
      Stretch = Struct.new(:address, :points, :from, :to)

      module_function

      # The stretches of all lanes of a track above one of its regions.
      # @return [Array<Stretch>]
      def above(track, region)
        track.lanes.reject { |lane| lane.points.empty? }.map do |lane|
          Stretch.new(lane.target, Splice.between(lane.points, region.start_tick, region.end_tick), region.start_tick, region.end_tick)
        end
      end

      # Takes stretches out of the lanes they come from.
      # @return [Song]
      def lift(song, stretches)
        stretches.reduce(song) do |now, stretch|
          on_lane(now, stretch.address) { |points| Lanes.levelled(points, stretch.from, stretch.to) }
        end
      end

      # Puts stretches down, `ticks` later, on the lanes of what answers to their parameters on another track.
      # @param match [Match]
      # @return [Song]
      def lay(song, stretches, match, ticks)
        stretches.reduce(song) do |now, stretch|
          address = match.address(stretch.address) or next now
          from = stretch.from + ticks
          middle = stretch.points.map { |point| point.with(tick: point.tick + from) }
          on_lane(with_lane(now, address), address) { |points| Splice.replace(points, from, stretch.to + ticks, middle) }
        end
      end

      # A stretch without moves: the value come to at its start holds, and jumps at its end to what goes on there.
      def levelled(points, from, to)
        left, = Splice.split(points, from)
        _, right = Splice.split(points, to)
        return right if left.empty? || from.zero?

        Splice.join([*left[0..-2], left.last.with(shape: Shapes::Hold::PLAIN)], right)
      end

      # A song in which the parameter has a lane; a new one rests at the knob.
      def with_lane(song, address)
        track = song.track(address.track_id)
        return song if track.lanes.any? { |lane| lane.target == address }

        Edits::AddLane.call(song, address: address.to_s).first
      end

      def on_lane(song, address)
        track = song.track(address.track_id)
        lane = track.lanes.find { |entry| entry.target == address } or return song
        lanes = track.lanes.map { |entry| entry.equal?(lane) ? lane.with(points: yield(lane.points)) : entry }
        song.with_track(track.with(lanes:))
      end
    end
  end
end
