# frozen_string_literal: true

module KindSatchel
  # A row of the song: a device chain that ends in the channel, lanes, and regions in order of time.
  #
  # `kind` is notes, audio, carrier, return, group or master; only the first three hold regions, and a carrier track
  # nothing but carrier clips: it has no devices and makes no sound. `output` is the id of the track it sounds into, nil
  # for the master. What is muted or soloed while somebody listens is not the track's (see {Listening}).
  class Track < Value.of(:id, :name, :kind, :hue, :output, :devices, :lanes, :regions)
    include Chain

    KINDS = %w[notes audio carrier return group master].freeze
    HUES = %w[madder indigo weld moss walnut lichen].freeze

    def check
      if Address::RESERVED.match?(id)
        fault!("reserved_id", "/id",
               "A track's id is not song, move, or begins with clip-; those name other things.")
      end
      unless KINDS.include?(kind)
        fault!("unknown_kind", "/kind",
               "A track cannot be #{kind.inspect}; its kinds are #{KINDS.join(', ')}.")
      end
      unless HUES.include?(hue)
        fault!("unknown_hue", "/hue",
               "There is no hue #{hue.inspect}; there is #{HUES.join(', ')}.")
      end
      [devices, lanes, regions].each(&:freeze)
      OneOfEach.check(lanes, "/lanes")
      check_devices
      check_regions
    end

    # @return [Device] its volume, pan and sends
    def channel = device("channel")

    # @return [String] the owner id of its devices, see {Address}
    def chain_id = id
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
      check_chain
      check_order
      return if kind == "carrier" ? devices.empty? : devices.last&.id == "channel" && devices.last.type == "channel"

      fault!("no_channel", "/devices",
             if kind == "carrier"
               "A carrier track has no devices."
             else
               "The chain of #{name} does not end in its channel."
             end)
    end

    def check_order
      ranks = devices.map { |device| Devices::Type::ROLES.index(device.type_rules.role) }
      return if ranks.each_cons(2).all? { |a, b| a <= b } && devices.count do |device|
        device.type_rules.role == "instrument"
      end < 2

      fault!("bad_order", "/devices",
             "On #{name} stand macros first, then note effects, then one instrument, then effects, then the channel.")
    end

    def check_regions
      unless holds_regions? || regions.empty?
        fault!("no_regions_here", "/regions",
               "#{name} is a #{kind} track and holds no regions.")
      end
      regions.each_cons(2).with_index(1) do |(a, b), i|
        next if b.start_tick >= a.end_tick

        fault!("overlap", "/regions/#{i}/start_tick", "Region #{b.id} starts before region #{a.id} ends on #{name}.")
      end
    end
  end
end
