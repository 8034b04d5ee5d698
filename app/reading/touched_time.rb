# frozen_string_literal: true

# The stretches of song time in which an edit of regions and their clips can be heard: where the regions lay and where they
# lie. Of what is heard, only these are computed and sent.
class TouchedTime
  KINDS = %w[song region clip envelope].freeze

  # @param before [KindSatchel::Song]
  # @param after [KindSatchel::Song]
  # @param patch [Hash] see KindSatchel::Parts
  def initialize(before, after, patch)
    @songs = [before, after]
    @patch = patch
  end

  # @return [Array<Array(Integer, Integer)>, nil] from, to, in order, apart from each other; nil where an edit reaches further
  def stretches
    return unless @patch.keys.all? { |kind, _| KINDS.include?(kind) } && @songs.map(&:length_ticks).uniq.size == 1

    owners = records("envelope").map { |record| record["owner"] }
    return if owners.any? { |owner| owner.start_with?("track/") }

    merged(of_regions + of_clips(ids("clip") + owners.map { |owner| owner.delete_prefix("clip/") }))
  end

  private

  def ids(kind) = @patch.keys.select { |key, _| key == kind }.map(&:last)
  def records(kind) = @patch.select { |(key, _), _| key == kind }.values.flatten(1).compact

  def of_regions = records("region").map { |record| [record["start_tick"], record["start_tick"] + record["length_ticks"]] }

  def of_clips(clip_ids)
    @songs.flat_map do |song|
      clip_ids.uniq.flat_map { |id| song.directory.regions_of_clip(id).map { |placed| [placed.region.start_tick, placed.region.end_tick] } }
    end
  end

  # A tick is left on both sides, so that what jumps at an edge is in it.
  def merged(list)
    list.sort.each_with_object([]) do |(from, to), all|
      from, to = [from - 1, 0].max, to + 1
      all.any? && from <= all.last[1] ? all.last[1] = [all.last[1], to].max : all << [from, to]
    end
  end
end
