# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Packs a stretch of a lane into the clips beneath: each region it touches, over its whole length, gets an envelope that
    # sets what lane and clip made together, running once; the lane is cut out there, edges level. Regions that come to the
    # same share one clip.
    class Pack
      attr_reader :regions, :largest, :separated

      # @param song [Song]
      # @param lane [Envelope]
      # @raise [InvalidInput] where no region lies beneath, or something there sets the parameter already
      def initialize(song, lane, from, to)
        @song = song
        @lane = lane
        @address = lane.target
        raise InvalidInput.of("lane_off", "/envelope_id", "The lane is switched off or empty; there is nothing to pack.") unless lane.acts?

        @regions = beneath(from, to)
        raise InvalidInput.of("nothing_beneath", "/from_tick", "No region lies there that the lane is heard in.") if @regions.empty?
      end

      # @return [Song]
      def song
        return @done if @done

        changes = ClipChanges.new(@song)
        @regions.group_by { |one| one.region.clip_id }.each { |id, list| changes.change(@song.clip(id), groups(changes, @song.clip(id), list)) }
        @separated = changes.separated
        @done = without_lane(changes.song)
        @largest = Heard::Difference.largest(@song, @done, @address, @regions.first.region.start_tick, @regions.last.region.end_tick)
        @done
      end

      private

      def beneath(from, to)
        track = @song.track(@address.track_id)
        track.regions_in(from, to).reject { |region| region.muted || sets?(@song.clip(region.clip_id)) }.map { |region| @song.directory.region(region.id) }
      end

      # Where a clip envelope sets, the lane is not heard.
      def sets?(clip) = clip.envelopes.any? { |envelope| envelope.target == @address && envelope.acts? && envelope.role == "set" }

      # The same points, the same clip.
      def groups(changes, clip, list)
        list.group_by { |one| points_in(one.region) }.map { |points, placed| [placed, with_envelope(changes, clip, points)] }
      end

      def points_in(region)
        later = region.offset_ticks - region.start_tick
        Heard::Points.new(@song, @address, only: [region.id]).between(region.start_tick, region.end_tick).map { |point| point.with(tick: point.tick + later) }
      end

      def with_envelope(changes, clip, points)
        known = clip.envelope_for(@address)
        envelope = Envelope.fresh(id: known ? known.id : changes.fresh_id, target: @address, points:, clock: "once")
        known ? clip.envelopes.map { |other| other.equal?(known) ? envelope : other } : [*clip.envelopes, envelope]
      end

      def without_lane(song)
        Transfer::Lanes.on_lane(song, @address) do |points|
          LayOut.stretches(@regions.map(&:region)).reduce(points) { |list, (from, to)| Transfer::Lanes.levelled(list, from, to) }
        end
      end
    end
  end
end
