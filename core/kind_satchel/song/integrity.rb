# frozen_string_literal: true

module KindSatchel
  # What must hold between the parts of a song: a region and its clip, checked where either of them changed;
  # moves and their settings; macros and what they drive.
  module Integrity
    # The most passes of the material, or of an envelope's own length, that one region may hold.
    MOST_PASSES = 100_000

    module_function

    # @param before [Song, nil] what was checked already; nil for nothing
    # @param after [Song]
    # @raise [InvalidInput]
    def check(before, after)
      faults = touched(before, after).uniq { |placed| placed.region.id }.filter_map { |placed| fault(after, placed) }
      faults += settings(before, after)
      raise InvalidInput, faults unless faults.empty?
    end

    # Settings of moves that would need themselves, or have two lanes of one role.
    def settings(before, after)
      return [] if before && before.tracks.equal?(after.tracks) && before.clips.equal?(after.clips)
      return [] if after.directory.moved_settings.empty? && after.directory.driven.empty? && !tempo_moves?(after)

      ring = Needs.new(after).ring
      [(Fault.new("ring", "", Needs.words(after, ring)) if ring), *second_lanes(after), *second_drives(after)].compact
    end

    def tempo_moves?(song) = song.directory.movers(Address.tempo).any? || song.lanes_of(Address.tempo).any?(&:lfo?)

    # One drive to a target.
    def second_drives(song)
      song.directory.driven.select { |address| song.directory.drivers(address).size > 1 }.map do |address|
        names = song.directory.drivers(address).map { |one| song.parameter_name(one.macro) }
        Fault.new("second_drive", "", "#{names.first(2).join(' and ')} both drive #{song.full_name(address)}; one may.")
      end
    end

    def second_lanes(song)
      song.directory.moved_settings.flat_map do |id, names|
        names.map { |name| Address.setting(id, name) }
      end.filter_map do |address|
        again = song.directory.setting_lanes(address).select(&:on).group_by(&:role).values.find do |lanes|
          lanes.size > 1
        end or next
        Fault.new("second_of_role", "",
                  "A second lane that #{again[1].role}s #{address}; there may be one of each role, switch it off.")
      end
    end

    # @return [Array<Directory::Placed>] regions that are new, and those of clips that are
    def touched(before, after)
      placed = after.tracks.each_with_index.flat_map do |track, place|
        new_regions(before, track).map { |region| Directory::Placed.new(region, track, place) }
      end
      return placed if before.nil? || before.clips.equal?(after.clips)

      placed + after.clips.flat_map do |id, clip|
        before.clips[id].equal?(clip) ? [] : after.directory.regions_of_clip(id)
      end
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

      Fault.new("too_many_passes", "",
                "A region of #{clip.name} on #{placed.track.name} would repeat #{count} times; at most " \
                "#{MOST_PASSES} are possible.")
    end

    def shortest_pass(region, clip)
      own = clip.envelopes.filter_map do |envelope|
        Clocks::ALL.fetch(envelope.clock).pass_ticks(region, clip, envelope)
      end
      [*own, *(clip.length_ticks if region.looped)].min
    end
    private_class_method :tempo_moves?, :settings, :second_lanes, :second_drives, :touched, :new_regions, :fault,
                         :shortest_pass
  end
end
