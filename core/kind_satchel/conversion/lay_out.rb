# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Lays clip envelopes out: what the regions make of lane and clip becomes points of the lane, and the envelopes leave the
    # clips. Other regions that share a clip keep theirs.
    class LayOut
      # The song ticks regions cover, as few stretches as can be.
      def self.stretches(regions)
        regions.map { |region| [region.start_tick, region.end_tick] }.sort.each_with_object([]) do |(from, to), list|
          list.any? && from <= list.last[1] ? list.last[1] = [list.last[1], to].max : list << [from, to]
        end
      end

      # `moves` is how many envelopes were laid out, `largest` the largest difference heard as a share of the travel.
      attr_reader :moves, :largest, :separated

      # @param song [Song]
      # @param placed [Array<Directory::Placed>] the regions; muted ones are left alone
      # @param addresses [Array<Address>, nil] only these
      # @raise [InvalidInput] where there is nothing to lay out, or a lane is switched off
      def initialize(song, placed, addresses: nil)
        @song = song
        @placed = placed.reject { |one| one.region.muted }
        @addresses = found(addresses)
        raise InvalidInput.of("nothing_to_lay_out", "/region_ids", "There is no clip envelope at work to lay out.") if @addresses.empty?

        check_lanes
      end

      # @return [Song]
      def song
        return @done if @done

        laid = @addresses.reduce(@song) { |now, address| with_points(now, address) }
        @done = without_envelopes(laid)
        @largest = @addresses.map { |address| Heard::Difference.largest(@song, @done, address, *reach) }.max
        @done
      end

      private

      def clips = @clips ||= @placed.map { |one| one.region.clip_id }.uniq.map { |id| @song.clip(id) }

      def found(addresses)
        all = clips.flat_map(&:envelopes).select(&:acts?).map(&:target).uniq
        addresses ? all & addresses : all
      end

      def check_lanes
        faults = @addresses.filter_map do |address|
          lane = lane_of(@song, address)
          Fault.new("lane_off", "", "The lane of #{@song.parameter(address).name} is switched off; switch it on or remove it first.") if lane && !lane.acts?
        end
        raise InvalidInput, faults unless faults.empty?
      end

      def lane_of(song, address) = song.track(address.track_id).lanes.find { |lane| lane.target == address }

      # The song's stretch the regions cover.
      def reach = [@placed.map { |one| one.region.start_tick }.min, @placed.map { |one| one.region.end_tick }.max]

      def with_points(song, address)
        regions = @placed.map(&:region).select { |region| @song.clip(region.clip_id).envelope_for(address)&.acts? }
        written = Heard::Points.new(@song, address, only: regions.map(&:id))
        song = setting(Transfer::Lanes.with_lane(song, address), address)
        inverse = inverse(song, address)
        Transfer::Lanes.on_lane(song, address) do |points|
          LayOut.stretches(regions).reduce(points) { |list, (from, to)| Splice.replace(list, from, to, written.between(from, to).map(&inverse)) }
        end
      end

      # A lane that shifts or scales becomes one that sets what it made of the knob.
      def setting(song, address)
        lane = lane_of(song, address)
        return song if lane.role == "set"

        points = Heard::Points.new(@song, address, only: []).between(0, @song.length_ticks)
        Edits::Moves.change(song, lane.id) { lane.with(role: "set", points:) }
      end

      # From what is heard to what the lane has to hold for it: another value only where the knob acts on top.
      def inverse(song, address)
        return :itself.to_proc unless lane_of(song, address).trims?

        factor, offset = Roles::Trim.new(song.parameter(address).default).line(song.parameter(address).scale, song.knob(address))
        factor = 1.0 if factor.zero?
        ->(point) { Point.new(tick: point.tick, value: ((point.value - offset) / factor).clamp(0.0, 1.0), shape: point.shape.scaled(1 / factor)) }
      end

      def without_envelopes(song)
        changes = ClipChanges.new(song)
        gone = @addresses.to_h { |address| [address, true] }
        @moves = 0
        @placed.group_by { |one| one.region.clip_id }.each do |id, list|
          clip = @song.clip(id)
          rest = clip.envelopes.reject { |envelope| envelope.acts? && gone.key?(envelope.target) }
          @moves += clip.envelopes.size - rest.size
          changes.change(clip, [[list, rest]]) if rest.size < clip.envelopes.size
        end
        @separated = changes.separated
        changes.song
      end
    end
  end
end
