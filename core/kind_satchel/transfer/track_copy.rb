# frozen_string_literal: true

module KindSatchel
  module Transfer
    # A track once more, right under it. With its moves, its clips are copied and their envelopes turned to the new
    # track, and its lanes come along; without, the clips are copied bare. Clips that hold no moves and no effects are
    # shared.
    class TrackCopy
      # @param track [Track] notes, audio or carrier
      # @param moves [Boolean]
      # @raise [InvalidInput]
      def initialize(song, track, moves:)
        @song = song
        @track = track
        @moves = moves
        @next_id = song.next_id
        @ids = {}
        return if track.holds_regions?

        raise InvalidInput.of("no_regions_here", "/track_id",
                              "#{track.name} is a #{track.kind} track; only tracks with regions are duplicated.")
      end

      # How many lanes and clip envelopes the track has, by what a copy would bring.
      # @example
      #   TrackCopy.counts(song, song.track("rope-bass")) #=> {"lanes"=>1, "envelopes"=>3, "clips"=>2, "regions"=>6}
      def self.counts(song, track)
        clips = track.regions.map(&:clip_id).uniq.map { |id| song.clip(id) }
        { "lanes" => track.lanes.size, "envelopes" => clips.sum do |clip|
          clip.envelopes.size
        end, "clips" => clips.size, "regions" => track.regions.size }
      end

      # @return [Song]
      def song
        bare = @track.with(id: make_id("track"), name: Clips.free_name(@song.tracks.map(&:name), @track.name),
                           lanes: [], regions: [])
        match = Match.new(beside(@song, bare), @track, bare)
        clips = clips_for(match)
        lanes = @moves ? renamed(Clips.turned_envelopes(@track.lanes, match)) : []
        lanes, clips = settings(lanes, clips)
        regions = @track.regions.map do |region|
          region.onto(@song.clip(region.clip_id), clips.fetch(region.clip_id)).with(id: make_id("region"))
        end
        all = clips.values.to_h { |clip| [clip.id, clip] }
        devices = Copies.redriven(bare.devices) { |target| driven(target, bare) }
        song = beside(@song, bare.with(lanes:, regions:, devices:))
        song = song.with(clips: @song.clips.merge(all), next_id: @next_id)
        Copies.followed(song, outside(lanes))
      end

      private

      # The song with a track right under the one that is copied.
      def beside(song, track)
        song.with(tracks: song.tracks.flat_map { |other| other.equal?(@track) ? [other, track] : [other] })
      end

      def renamed(envelopes) = envelopes.map { |envelope| envelope.with(id: @ids[envelope.id] = make_id("envelope")) }

      # What moved a setting of a move of this track moves that of its copy. A lane for a setting of any other has its
      # lane already.
      def settings(lanes, clips)
        lanes = Copies.retargeted(lanes, @ids).map do |lane|
          lane.target.setting? && !copy?(lane.target) ? lane.with(on: false) : lane
        end
        [lanes, clips.transform_values { |clip| clip.with(envelopes: Copies.retargeted(clip.envelopes, @ids)) }]
      end

      # A parameter has one driver: what lies elsewhere goes on being driven by the track it was.
      def driven(target, copy)
        return target.with(owner_id: copy.id) if target.owner_id == @track.id

        target.with(device_id: @ids[target.device_id]) if target.setting? && @ids.key?(target.device_id)
      end

      def copy?(address) = @ids.value?(address.device_id)

      # Without the moves whose settings lanes of this very track move, which are copied.
      def outside(lanes)
        @ids.reject { |_, copy| lanes.any? { |lane| lane.target.setting? && lane.target.device_id == copy } }
      end

      def make_id(word)
        @next_id += 1
        "#{word}-#{@next_id - 1}"
      end

      # Clip id => the clip the copy places.
      def clips_for(match)
        names = @song.clips.each_value.map(&:name)
        @track.regions.map(&:clip_id).uniq.to_h do |id|
          clip = @song.clip(id)
          next [id, clip] if clip.envelopes.empty? && clip.devices.empty?

          name = Clips.free_name(names, clip.name)
          names << name
          [id, clip.under(id: make_id("clip"), name:, envelopes: envelopes_for(clip, match))]
        end
      end

      def envelopes_for(clip, match) = @moves ? renamed(Clips.turned_envelopes(clip.envelopes, match)) : []
    end
  end
end
