# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Packs a stretch of a lane into the clips beneath: each region it touches, over its whole length, gets an
    # envelope of the lane's role that runs once; there the lane is emptied. Regions that come to the same share one
    # clip.
    class Pack
      # @param song [Song]
      # @param lane [Envelope]
      # @return [Result]
      # @raise [InvalidInput] where no region lies beneath, something there sets the parameter already, or is switched
      #   off
      def self.call(song, lane, from, to) = new(song, lane, from, to).result

      # @raise [InvalidInput]
      def initialize(song, lane, from, to)
        @song = song
        @lane = lane
        @address = lane.target
        unless lane.acts?
          raise InvalidInput.of("lane_off", "/envelope_id",
                                "The lane is switched off or empty; there is nothing to pack.")
        end

        Moved.refuse(song, @lane)
        @regions = beneath(from, to)
        if @regions.empty?
          raise InvalidInput.of("nothing_beneath", "/from_tick",
                                "No region lies there that the lane is heard in.")
        end

        check_clips
      end

      # @return [Result]
      def result
        changes = ClipChanges.new(@song)
        song = packed(changes)
        Result.new(song:, difference: Heard::Difference.of(@song, song, Moved.heard(@song, [@address])),
                   separated: changes.separated, converted: @regions.size)
      end

      private

      def packed(changes)
        @regions.group_by do |one|
          one.region.clip_id
        end.each { |id, list| changes.change(@song.clip(id), groups(changes, @song.clip(id), list)) }
        Transfer::Lanes.change(changes.song, @lane.id) do |lane|
          LayOut.stretches(@regions.map(&:region)).reduce(lane.drawn(@song.length_ticks)) do |now, (from, to)|
            Lanes.emptied(now, from, to)
          end
        end
      end

      def beneath(from, to)
        regions = @song.tracks_of(@address).flat_map { |track| track.regions_in(from, to) }
        regions.reject { |region| region.muted || !reached?(region) || (@lane.role == "set" && known(region)&.acts?) }
               .map { |region| @song.directory.region(region.id) }
      end

      # Of a setting, those of the clip that its move is in.
      def reached?(region) = !@address.setting? || @song.clip(region.clip_id).own_setting?(@address)

      def known(region) = @song.clip(region.clip_id).envelope_for(@address, @lane.role)

      def check_clips
        off = @regions.map(&:region).select { |region| known(region) && !known(region).on }
        off = off.map { |region| @song.clip(region.clip_id).name }.uniq
        return if off.empty?

        raise InvalidInput.of("envelope_off", "/from_tick",
                              "#{off.first(3).join(', ')}: a #{@song.parameter(@address).name} envelope is off " \
                              "there; switch it on or remove it first.")
      end

      # The same points, the same clip.
      def groups(changes, clip, list)
        list.group_by do |one|
          points_in(one.region, clip)
        end.map { |points, placed| [placed, with_envelope(changes, clip, points)] }
      end

      def points_in(region, clip)
        from, to = region.start_tick, region.end_tick
        points = Written.shifted(Splice.between(lane_points, from, to), from)
        envelope = clip.envelope_for(@address, @lane.role)
        if envelope&.acts?
          points = Blend.points(@lane.role, points, Written.in_region(@song, region, clip, envelope), from,
                                to)
        end
        points.map { |point| point.with(tick: point.tick + region.offset_ticks - from) }
      end

      def lane_points = @lane_points ||= Lanes.given(@lane, @song)

      def with_envelope(changes, clip, points)
        known = clip.envelope_for(@address, @lane.role)
        envelope = Envelope.fresh(id: known ? known.id : changes.fresh_id, target: @address, role: @lane.role, points:,
                                  clock: "once")
        known ? clip.envelopes.map { |other| other.equal?(known) ? envelope : other } : [*clip.envelopes, envelope]
      end
    end
  end
end
