# frozen_string_literal: true

module KindSatchel
  # What must hold between a region and its clip, checked where either of them changed.
  module Integrity
    # The most passes of the material, or of an envelope's own length, that one region may hold.
    MOST_PASSES = 100_000

    module_function

    # @param before [Song, nil] what was checked already; nil for nothing
    # @param after [Song]
    # @raise [InvalidInput]
    def check(before, after)
      faults = touched(before, after).uniq { |placed| placed.region.id }.filter_map { |placed| fault(after, placed) }
      raise InvalidInput, faults unless faults.empty?
    end

    # @return [Array<Directory::Placed>] regions that are new, and those of clips that are
    def touched(before, after)
      placed = after.tracks.each_with_index.flat_map { |track, place| new_regions(before, track).map { |region| Directory::Placed.new(region, track, place) } }
      return placed if before.nil? || before.clips.equal?(after.clips)

      placed + after.clips.flat_map { |id, clip| before.clips[id].equal?(clip) ? [] : after.directory.regions_of_clip(id) }
    end

    def new_regions(before, track)
      old = before && before.directory.tracks[track.id]
      return [] if old.equal?(track)
      return track.regions unless old

      known = old.regions.to_h { |region| [region.id, region] }
      track.regions.reject { |region| known[region.id].equal?(region) }
    end

    def fault(song, placed)
      region = placed.region
      clip = song.clips[region.clip_id] or return
      shortest = shortest_pass(region, clip) or return
      count = region.pass_count(shortest)
      return if count <= MOST_PASSES

      Fault.new("too_many_passes", "", "A region of #{clip.name} on #{placed.track.name} would repeat #{count} times; at most #{MOST_PASSES} are possible.")
    end

    def shortest_pass(region, clip)
      own = clip.envelopes.filter_map { |envelope| Clocks::ALL.fetch(envelope.clock).pass_ticks(region, clip, envelope) }
      [*own, *(clip.length_ticks if region.looped)].min
    end
    private_class_method :touched, :new_regions, :fault, :shortest_pass
  end
end
