# frozen_string_literal: true

module KindSatchel
  module Transfer
    # A track once more, right under it. With its moves, its clips are copied and their envelopes turned to the new track, and
    # its lanes come along; without, the clips are copied bare. Clips that hold no moves and no effects are shared.
    class TrackCopy
      # @param track [Track] notes, audio or carrier
      # @param moves [Boolean]
      def initialize(song, track, moves:)
        @song = song
        @track = track
        @moves = moves
        @next_id = song.next_id
        return if track.holds_regions?

        raise InvalidInput.of("no_regions_here", "/track_id", "#{track.name} is a #{track.kind} track; only tracks with regions are duplicated.")
      end

      # How many lanes and clip envelopes the track has, by what a copy would bring.
      def self.counts(song, track)
        clips = track.regions.map(&:clip_id).uniq.map { |id| song.clip(id) }
        { "lanes" => track.lanes.size, "envelopes" => clips.sum { |clip| clip.envelopes.size }, "clips" => clips.size, "regions" => track.regions.size }
      end

      # @return [Song]
      def song
        bare = @track.with(id: make_id("track"), name: Clips.free_name(@song.tracks.map(&:name), @track.name), lanes: [], regions: [])
        match = Match.new(beside(@song, bare), @track, bare)
        clips = clips_for(match)
        lanes = @moves ? renamed(Clips.turned_envelopes(@track.lanes, match)) : []
        regions = @track.regions.map { |region| region.with(id: make_id("region"), clip_id: clips.fetch(region.clip_id).id) }
        all = clips.values.to_h { |clip| [clip.id, clip] }
        beside(@song, bare.with(lanes:, regions:)).with(clips: @song.clips.merge(all), next_id: @next_id)
      end

      private

      # The song with a track right under the one that is copied.
      def beside(song, track) = song.with(tracks: song.tracks.flat_map { |other| other.equal?(@track) ? [other, track] : [other] })

      def renamed(envelopes) = envelopes.map { |envelope| envelope.with(id: make_id("envelope")) }

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
