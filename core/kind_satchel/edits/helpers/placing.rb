# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts regions on a track, one after the other: what lies under them is trimmed, split or taken away.
    class Placing
      # @param song [Song]
      # @param track [Track]
      # @param regions [Array<Region>] may be on the track already, elsewhere
      # @return [Song]
      def self.drop(song, track, *regions) = new(song, track, regions).song

      # Places a clip that the song does not have yet, once, over its whole length.
      # @param clip [Clip] named by the song's next id
      # @return [Array(Song, Array<Notice>)]
      def self.fresh(song, track, clip, start_tick)
        region = Region.fresh(id: "region-#{song.next_id + 1}", clip_id: clip.id, start_tick:,
                              length_ticks: clip.length_ticks)
        with_clip = song.with(next_id: song.next_id + 2).with_clip(clip)
        next_song = drop(with_clip, with_clip.track(track.id), region)
        [next_song, cuts(song, next_song)]
      end

      # What a drop did to the regions that lay there.
      # @param before [Song] without the regions that were dropped
      # @param after [Song]
      # @return [Array<Notice>]
      def self.cuts(before, after)
        changed = before.tracks.flat_map do |track|
          now = after.track(track.id)
          next [] if now.equal?(track)

          left = now.regions.to_h { |region| [region.id, region] }
          track.regions.filter_map { |region| cut(before, region, left[region.id]) }
        end
        return changed if changed.size <= 3

        [Notice.new("cut", changed.flat_map(&:ids), "cuts or replaces #{changed.size} regions")]
      end

      def self.cut(song, region, left)
        return if region.equal?(left)

        words = "#{left ? 'cuts' : 'replaces'} #{song.clip(region.clip_id).name} at " \
                "#{song.meters.text(region.start_tick)}"
        Notice.new("cut", [region.id], words)
      end
      private_class_method :cut

      def initialize(song, track, regions)
        @song = song
        @track = track
        @regions = regions
        @next_id = song.next_id
      end

      def song
        dropped = @regions.to_h { |region| [region.id, true] }
        list = @track.regions.reject { |region| dropped.key?(region.id) }
        @regions.each { |region| list = list.flat_map { |other| left_over(other, region) } << region }
        @song.with(next_id: @next_id).with_track(@track.with(regions: list.sort_by(&:start_tick)))
      end

      private

      # What remains of a region once another one lies on it.
      def left_over(region, above)
        from, to = above.start_tick, above.end_tick
        return [region] if region.end_tick <= from || region.start_tick >= to

        rest = []
        rest << region.split(from, nil).first if region.start_tick < from
        rest << region.split(to, rest.empty? ? region.id : new_id).last if region.end_tick > to
        rest
      end

      def new_id
        @next_id += 1
        "region-#{@next_id - 1}"
      end
    end
  end
end
