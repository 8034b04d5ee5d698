# frozen_string_literal: true

module KindSatchel
  # A row of the song: a device chain that ends in the channel, lanes, and regions in order of time.
  #
  # `kind` is notes, audio, carrier, return, group or master; only the first three hold regions, and a carrier track
  # nothing but carrier clips: it has no devices and makes no sound. `output` is the id of the track it sounds into, nil
  # for the master. What is muted or soloed while somebody listens is not the track's (see {Listening}).
  class Track < Value.of(:id, :name, :kind, :hue, :output, :devices, :lanes, :regions)
    KINDS = %w[notes audio carrier return group master].freeze
    # The most devices of one chain.
    MOST_DEVICES = 100
    HUES = %w[madder indigo weld moss walnut lichen].freeze

    def check
      fault!("reserved_id", "/id", "A track's id is not song, move, or begins with clip-; those name other things.") if Address::RESERVED.match?(id)
      fault!("unknown_kind", "/kind", "There is no kind of track #{kind.inspect}; there is #{KINDS.join(', ')}.") unless KINDS.include?(kind)
      fault!("unknown_hue", "/hue", "There is no hue #{hue.inspect}; there is #{HUES.join(', ')}.") unless HUES.include?(hue)
      [devices, lanes, regions].each(&:freeze)
      OneOfEach.check(lanes, "/lanes")
      check_devices
      check_regions
    end

    def channel = device("channel")
    def holds_regions? = holds.any?
    # Whether it has a source of sound of its own, and so sends.
    def sounds_itself? = %w[notes audio].include?(kind)

    # Whether regions of a clip may lie here.
    def fits?(clip) = holds.include?(clip.kind)

    # The kinds of clip whose regions may lie on a kind of track.
    HOLDS = { "notes" => %w[notes carrier], "audio" => %w[audio carrier], "carrier" => %w[carrier] }.freeze

    # @return [Array<String>] the kinds of clip whose regions may lie here
    def holds = HOLDS.fetch(kind, [])

    # @return [Envelope, nil] its lane of one role for a parameter
    def lane_for(target, role) = lanes.find { |lane| lane.target == target && lane.role == role }

    # @raise [NotFound]
    def device(id)
      devices.find { |device| device.id == id } or
        raise NotFound.of("unknown_device", "", "#{name} has no device #{id.inspect}; it has #{devices.map(&:id).join(', ')}.")
    end

    # Regions that sound somewhere in from...to.
    def regions_in(from, to)
      first = regions.bsearch_index { |region| region.end_tick > from } or return []
      last = regions.bsearch_index { |region| region.start_tick >= to } || regions.size
      regions[first...last]
    end

    # @return [Region, nil] the region that lies at a tick
    def region_at(tick)
      region = regions.bsearch { |other| other.end_tick > tick }
      region if region && region.start_tick <= tick
    end

    private

    def check_devices
      fault!("duplicate_id", "/devices", "The devices of #{name} need different ids.") if devices.map(&:id).uniq.size < devices.size
      check_order
      return if kind == "carrier" ? devices.empty? : devices.last&.id == "channel" && devices.last.type == "channel"

      fault!("no_channel", "/devices", kind == "carrier" ? "A carrier track has no devices." : "The chain of #{name} does not end in its channel.")
    end

    def check_order
      fault!("too_many_devices", "/devices", "A chain has at most #{MOST_DEVICES} devices.") if devices.size > MOST_DEVICES
      late = devices.drop(1).find { |device| device.type_rules.role == "instrument" } or return
      fault!("instrument_first", "/devices", "An instrument stands first; #{late.type_rules.name} of #{name} does not.")
    end

    def check_regions
      fault!("no_regions_here", "/regions", "#{name} is a #{kind} track and holds no regions.") unless holds_regions? || regions.empty?
      regions.each_cons(2).with_index(1) do |(a, b), i|
        next if b.start_tick >= a.end_tick

        fault!("overlap", "/regions/#{i}/start_tick", "Region #{b.id} starts before region #{a.id} ends on #{name}.")
      end
    end
  end
end
