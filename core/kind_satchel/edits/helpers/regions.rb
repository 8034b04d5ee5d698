# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of regions share.
    module Regions
      module_function

      # Regions by id, each once, by track and time.
      # @return [Array<Directory::Placed>]
      # @raise [NotFound] for every id that names none
      def named(song, ids, path = "/region_ids")
        known = song.directory.regions
        faults = ids.each_with_index.filter_map do |id, i|
          unless known.key?(id)
            Fault.new("unknown_region", "#{path}/#{i}",
                      "There is no region #{id.inspect} in this song.")
          end
        end
        raise NotFound, faults unless faults.empty?

        ids.uniq.map { |id| known[id] }.sort_by { |placed| [placed.place, placed.region.start_tick] }
      end

      # What regions are called: by the name of their clip, or how many they are.
      # @param placed [Array<Directory::Placed>]
      def words(song, placed)
        placed.size == 1 ? song.clip(placed.first.region.clip_id).name : "#{placed.size} regions"
      end

      # Every track with some of its regions changed.
      # @yieldparam placed [Directory::Placed]
      # @yieldreturn [Region, nil] nil takes it away
      # @return [Song]
      def change(song, placed)
        placed.group_by(&:track).reduce(song) do |now, (track, list)|
          named = list.to_h { |one| [one.region.id, one] }
          regions = track.regions.filter_map { |region| named.key?(region.id) ? yield(named[region.id]) : region }
          now.with_track(now.track(track.id).with(regions:))
        end
      end
    end
  end
end
