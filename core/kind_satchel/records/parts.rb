# frozen_string_literal: true

module KindSatchel
  # A song as flat parts, the grain at which it is stored, logged, undone and sent: the head, and every track,
  # region, clip and envelope by itself. A part's key is [kind, id]; its record says where it belongs (`owner`)
  # and in which place, so that any set of parts can be put back.
  #
  # A patch is a hash from key to [record before, record after]; nil stands for "not there".
  module Parts
    HEAD = %w[song head].freeze

    module_function

    # @example
    #   Parts.between(song, song.with(name: "Ebb")).keys #=> [["song", "head"]]
    # @param points [Boolean] whether the records of envelopes hold their points, and those of clips their notes;
    #   without them they hold themselves
    # @return [Hash] the parts that differ; made by identity, since edits share what they did not change
    def between(before, after, points: true)
      patch = Patch.new(points)
      add_head(patch, before, after)
      each_pair(before.tracks, after.tracks) { |old, new, place, was| Tracks.diff(patch, old, new, was, place) }
      clip_pairs(before.clips, after.clips) { |old, new| Clips.diff(patch, old, new) }
      patch.to_h.reject { |_, (old, new)| old.eql?(new) }
    end

    # A patch in the making, and how it records envelopes.
    class Patch < Hash
      def initialize(points)
        super()
        @points = points
      end

      # @return [Hash] the record; without points where only the frame is compared
      def envelope(value) = @points ? Records.envelope(value) : { "target" => value.target.to_s, "self" => value }

      # @return [Hash]
      def clip(value) = @points ? Records.clip(value) : { **Records.clip(value, notes: false), "self" => value.notes }
    end

    # @return [Hash] every part of a song by key
    def all(song)
      empty = song.with(tracks: [], clips: {})
      between(empty, song).transform_values(&:last).merge(HEAD => Records.head(song))
    end

    # Puts a patch onto a song.
    # @param side [Integer] 1 takes the records after, 0 the records before
    # @return [Song] that shares every part the patch does not name
    def apply(song, patch, side)
      Assembly.new(song, patch.transform_values { |pair| pair[side] }).song
    end

    # Builds a song from all its parts.
    def assemble(parts)
      head = Records.read_head(parts.fetch(HEAD))
      Assembly.new(Song.new(**head, tracks: [], clips: {}), parts).song
    end

    def add_head(patch, before, after)
      old, new = Records.head(before), Records.head(after)
      patch[HEAD] = [old, new] unless old.eql?(new)
    end

    # Yields old, new, new place and old place of all that is not the same thing in the same place.
    def each_pair(before, after)
      return if before.equal?(after)

      places = before.each_with_index.to_h { |thing, i| [thing.id, i] }
      after.each_with_index do |thing, place|
        was = places.delete(thing.id)
        yield(was && before[was], thing, place, was) unless was == place && before[was].equal?(thing)
      end
      places.each_value { |was| yield before[was], nil, nil, was }
    end

    def clip_pairs(before, after)
      return if before.equal?(after)

      after.each { |id, clip| yield before[id], clip unless before[id].equal?(clip) }
      before.each { |id, clip| yield clip, nil unless after.key?(id) }
    end

    # Puts what differs between two lists of envelopes into a patch.
    def add_envelopes(patch, owner, before, after)
      each_pair(before, after) do |old, new, place, was|
        id = (old || new).id
        pair = [old && placed(patch.envelope(old), owner, was), new && placed(patch.envelope(new), owner, place)]
        patch[["envelope", id]] = merged(patch[["envelope", id]], pair)
      end
    end

    # An envelope that goes from one owner to another appears twice; both halves make one change.
    def merged(known, pair) = known ? [known[0] || pair[0], known[1] || pair[1]] : pair

    # @return [Hash] the record with whose it is, and its index there
    def placed(record, owner, place) = record.merge("owner" => owner, "place" => place)

    private_class_method :add_head, :clip_pairs

    # Tracks as parts.
    module Tracks
      # Puts what differs between two tracks into a patch.
      def self.diff(patch, old, new, was, place)
        id = (old || new).id
        patch[["track", id]] =
          [old && Parts.placed(Records.track(old), nil, was), new && Parts.placed(Records.track(new), nil, place)]
        Parts.add_envelopes(patch, "track/#{id}", old ? old.lanes : [], new ? new.lanes : [])
        regions(patch, id, old ? old.regions : [], new ? new.regions : [])
      end

      # Puts what differs between two lists of regions into a patch.
      def self.regions(patch, track_id, before, after)
        return if before.equal?(after)

        known = before.to_h { |region| [region.id, region] }
        after.each do |region|
          old = known.delete(region.id)
          pair(patch, track_id, old, region) unless old.equal?(region)
        end
        known.each_value { |region| pair(patch, track_id, region, nil) }
      end

      # Puts a region into a patch, before and after.
      def self.pair(patch, track_id, old, new)
        records = [old, new].map { |region| region && Records.region(region).merge("owner" => "track/#{track_id}") }
        key = ["region", (old || new).id]
        patch[key] = Parts.merged(patch[key], records)
      end
    end

    # Clips as parts.
    module Clips
      # Puts what differs between two clips into a patch.
      def self.diff(patch, old, new)
        patch[["clip", (old || new).id]] = [old && patch.clip(old), new && patch.clip(new)]
        Parts.add_envelopes(patch, "clip/#{(old || new).id}", old ? old.envelopes : [], new ? new.envelopes : [])
      end
    end
  end
end

require_relative "assembly"
