# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Lanes and their stretches: found by parameter and role, made, changed; and stretches that follow the regions
    # under them. Edges are kept level: outside the stretches nothing changes, and where one was taken away the value
    # before it holds.
    module Lanes
      # One stretch on its way: `points` from tick 0, `from` and `to` in song ticks.
      Stretch = Struct.new(:address, :role, :points, :from, :to)

      module_function

      # The stretches of all lanes of a track above one of its regions.
      # @return [Array<Stretch>]
      def above(track, region)
        track.lanes.reject { |lane| lane.points.empty? }.map do |lane|
          points = Splice.between(lane.points, region.start_tick, region.end_tick)
          Stretch.new(lane.target, lane.role, points, region.start_tick, region.end_tick)
        end
      end

      # Takes stretches out of the lanes they come from.
      # @return [Song]
      def lift(song, stretches)
        stretches.reduce(song) do |now, stretch|
          on_lane(now, stretch.address, stretch.role) { |points| Lanes.levelled(points, stretch.from, stretch.to) }
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
          on_lane(with_lane(now, address, stretch.role), address, stretch.role) do |points|
            Splice.replace(points, from, stretch.to + ticks, middle)
          end
        end
      end

      # A stretch without moves: the value come to at its start holds, and jumps at its end to what goes on there.
      def levelled(points, from, to)
        left, = Splice.split(points, from)
        _, right = Splice.split(points, to)
        return right if left.empty? || from.zero?

        Splice.join([*left[0..-2], left.last.with(shape: Shapes::Hold::PLAIN)], right)
      end

      # A song in which the parameter has a lane of a role; a new one changes nothing yet.
      # @param track [Track, nil] where a new one lies; nil for its usual place
      def with_lane(song, address, role, track = nil)
        return song if lane(song, address, role)

        track ||= song.owned(address).lane_track
        lane = resting(song, address, role).with(clock: "once")
        song.with(next_id: song.next_id + 1).with_track(track.with(lanes: [*track.lanes, lane]))
      end

      # @return [Envelope, nil] the lane of one role for a parameter
      def lane(song, address, role) = song.lanes_of(address).find { |lane| lane.role == role }

      # A new envelope that changes nothing yet: one point, the resting value (of what a macro drives, where that
      # stands at the start) or the amount that leaves it alone.
      # @return [Envelope] with the song's next id
      def resting(song, address, role)
        value = Roles::ALL.fetch(role).neutral || Heard::Driven.of(song, address, nil)&.at(0) || song.knob(address)
        point = Point.new(tick: 0, value:, shape: Shapes::Straight::PLAIN)
        Envelope.fresh(id: "envelope-#{song.next_id}", target: address, points: [point], role:)
      end

      # @yieldparam points [Array<Point>] of the lane
      # @return [Song] with what is yielded in their place
      def on_lane(song, address, role)
        lane = lane(song, address, role) or return song
        change(song, lane.id) { lane.with(points: yield(lane.points)) }
      end

      # Replaces one envelope where it lives.
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Envelope, nil] the next one; nil removes it
      # @return [Song]
      def change(song, envelope_id)
        home = song.directory.envelope(envelope_id)
        replace(song, home, yield(home.envelope))
      end

      # @param home [Directory::Home]
      # @param envelope [Envelope, nil]
      # @return [Song]
      def replace(song, home, envelope)
        if home.clip
          return song.with_clip(home.clip.with(envelopes: swap(home.clip.envelopes, home.envelope, envelope)))
        end

        song.with_track(home.track.with(lanes: swap(home.track.lanes, home.envelope, envelope)))
      end

      def swap(list, old, new) = list.filter_map { |entry| entry.equal?(old) ? new : entry }
      private_class_method :swap
    end
  end
end
