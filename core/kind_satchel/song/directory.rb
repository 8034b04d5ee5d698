# frozen_string_literal: true

module KindSatchel
  # Finds things of one song by id. Built on first use and kept with the song value; the next song's directory is
  # made from it by `with_track` and `with_clip`, which touch only what belongs to that track or clip.
  class Directory
    # Where an envelope lives: exactly one of `clip` and `track` is set.
    Home = Struct.new(:envelope, :clip, :track) do
      # @return [Clip, Track]
      def owner = clip || track
    end
    # A region on the track that holds it; `place` is the track's place in the song, from the top.
    Placed = Struct.new(:region, :track, :place)
    # What drives a parameter: the macro by its address, and how.
    Driver = Struct.new(:macro, :drive)
    NONE = [].freeze

    attr_reader :tracks, :envelopes, :regions
    # What {Checks} found out about addresses of devices, by the address itself: whether there is no such parameter.
    # It goes on to the next directory as long as no chain changes.
    attr_reader :missing_targets

    def initialize(song)
      @tracks = {}
      @places = {}
      @envelopes = {}
      @regions = {}
      @regions_of_clip = {}
      @movers = {}
      @setting_lanes = {}
      @drivers = {}
      @clips_known = {}
      @missing_targets = {}.compare_by_identity
      song.tracks.each_with_index { |track, place| add_track(track, place) }
      song.clips.each_value { |clip| add_clip(clip) }
    end

    # @example
    #   song.directory.track("rope-bass").name #=> "Rope Bass"
    # @raise [NotFound]
    def track(id) = find(tracks, id, "track")

    # @return [Home]
    # @raise [NotFound]
    def envelope(id) = find(envelopes, id, "envelope")

    # @return [Placed]
    # @raise [NotFound]
    def region(id) = find(regions, id, "region")

    # @return [Array<Placed>] every region that places a clip, by track, then by time
    def regions_of_clip(clip_id) = @regions_of_clip.fetch(clip_id, NONE)

    # @return [Array<Array(Clip, Envelope)>] clip envelopes for a parameter
    def movers(address) = @movers.fetch(address, NONE)

    # @return [Array<Envelope>] lanes for a setting of a move, by track
    def setting_lanes(address) = @setting_lanes.fetch(address, NONE).map(&:envelope)

    # @return [Driver, nil] what stands in the place of a parameter's knob
    def driver(address) = @drivers.fetch(address, NONE).first

    # @param macro [Address]
    # @return [Array<Drive>] what it drives
    def drives_of(macro)
      device = tracks[macro.owner_id]&.devices&.find { |one| one.id == macro.device_id }
      device ? device.macros.select { |one| one.id == macro.parameter_id }.flat_map(&:drives) : NONE
    end

    # @return [Array<Address>] of all that is driven
    def driven = @drivers.keys

    # @return [Array<Driver>] all that drive a parameter; more than one is a fault
    def drivers(address) = @drivers.fetch(address, NONE)

    # Settings of moves that something is drawn for, on or off, or that are driven.
    # @return [Hash{String=>Array<String>}] names by envelope id
    def moved_settings
      @moved_settings ||= begin
        moved = [*@setting_lanes, *@movers, *@drivers].select { |address, list| address.setting? && !list.empty? }
        moved.map(&:first).uniq.group_by(&:device_id).transform_values { |list| list.map(&:parameter_id).freeze }.freeze
      end
    end

    # The directory of the song in which this track stands in place of the one with its id.
    def with_track(track) = dup.tap { |copy| copy.replace_track(@tracks.fetch(track.id), track) }

    # The directory of the song in which this clip stands in place of the one with its id, if there was one.
    # @param clip [Clip]
    def with_clip(clip) = dup.tap { |copy| copy.replace_clip(clip) }

    protected

    def replace_track(old, track)
      drop(old)
      chain_changed unless old.devices.equal?(track.devices)
      clip_ids = (old.regions + track.regions).map(&:clip_id).uniq
      clip_ids.each { |id| @regions_of_clip[id] = regions_of_clip(id).reject { |placed| placed.track.equal?(old) } }
      add_track(track, @places[track.id])
      clip_ids.each do |id|
        @regions_of_clip[id] = regions_of_clip(id).sort_by { |placed| [placed.place, placed.region.start_tick] }
      end
    end

    def replace_clip(clip)
      old = @clips_known[clip.id]
      chain_changed unless (old ? old.devices : NONE) == clip.devices
      old&.envelopes&.each do |envelope|
        @envelopes.delete(envelope.id) if @envelopes[envelope.id].clip.equal?(old)
        @movers[envelope.target] = movers(envelope.target).reject { |other, _| other.id == clip.id }
      end
      add_clip(clip)
    end

    private

    def chain_changed
      @missing_targets = {}.compare_by_identity
    end

    def initialize_copy(other)
      super
      @moved_settings = nil
      %i[@tracks @places @envelopes @regions @regions_of_clip @movers @setting_lanes @drivers @clips_known
         @missing_targets].each do |name|
        instance_variable_set(name, instance_variable_get(name).dup)
      end
    end

    def find(table, id, word)
      table.fetch(id) do
        raise NotFound.of("unknown_#{word}", "/#{word}_id", "There is no #{word} #{id.inspect} in this song.")
      end
    end

    # What another track has taken over meanwhile stays.
    def drop(track)
      track.lanes.each { |lane| drop_lane(lane, track) }
      track.regions.each { |region| @regions.delete(region.id) if @regions[region.id].track.equal?(track) }
      each_drive(track) do |macro, drive|
        rest = @drivers[drive.target].reject { |one| one.macro == macro }
        rest.empty? ? @drivers.delete(drive.target) : @drivers[drive.target] = rest
      end
    end

    def drop_lane(lane, track)
      @envelopes.delete(lane.id) if @envelopes[lane.id].track.equal?(track)
      return unless lane.target.setting?

      @setting_lanes[lane.target] = @setting_lanes.fetch(lane.target, NONE).reject { |home| home.track.equal?(track) }
    end

    def each_drive(track)
      track.devices.each do |device|
        device.macros.each do |macro|
          address = Address.new(owner_id: track.id, device_id: device.id, parameter_id: macro.id)
          macro.drives.each { |drive| yield address, drive }
        end
      end
    end

    def add_track(track, place)
      @tracks[track.id] = track
      @places[track.id] = place
      track.lanes.each do |lane|
        home = @envelopes[lane.id] = Home.new(lane, nil, track)
        next unless lane.target.setting?

        @setting_lanes[lane.target] = [*@setting_lanes[lane.target], home].sort_by { |one| @places[one.track.id] }
      end
      each_drive(track) { |macro, drive| @drivers[drive.target] = [*@drivers[drive.target], Driver.new(macro, drive)] }
      add_regions(track, place)
    end

    def add_regions(track, place)
      placed = track.regions.map { |region| @regions[region.id] = Placed.new(region, track, place) }
      placed.group_by do |one|
        one.region.clip_id
      end.each { |id, list| @regions_of_clip[id] = [*@regions_of_clip[id], *list] }
    end

    def add_clip(clip)
      @clips_known[clip.id] = clip
      clip.envelopes.each do |envelope|
        @envelopes[envelope.id] = Home.new(envelope, clip, nil)
        @movers[envelope.target] = [*@movers[envelope.target], [clip, envelope]]
      end
    end
  end
end
