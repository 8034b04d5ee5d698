# frozen_string_literal: true

module KindSatchel
  module Transfer
    # A small song of just some regions: their tracks with their devices, the clips they play, and nothing else. It is
    # what is carried from one song into another.
    module Extract
      module_function

      # @param song [Song]
      # @param region_ids [Array<String>]
      # @return [Song]
      # @raise [NotFound]
      def regions(song, region_ids)
        placed = region_ids.map { |id| song.directory.region(id) }
        kept = placed.group_by { |one| one.track.id }
        clips = placed.map { |one| one.region.clip_id }.uniq.to_h { |id| [id, song.clip(id)] }
        tracks = song.tracks.filter_map do |track|
          list = kept[track.id]
          next track.with(lanes: [], regions: []) if list.nil? && %w[master return].include?(track.kind)

          track.with(lanes: [], output: song.tracks.last.id, regions: list.map(&:region).sort_by(&:start_tick)) if list
        end
        song.with(tracks:, clips:, markers: [])
      end
    end
  end
end
