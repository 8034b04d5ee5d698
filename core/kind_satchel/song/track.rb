# frozen_string_literal: true

module KindSatchel
  # A row of the song: a device chain that ends in the channel, lanes, and regions in order of time.
  #
  # `kind` is notes, audio, return, group or master; only the first two hold regions. `output` is the id of the
  # track it sounds into, nil for the master.
  class Track < Value.of(:id, :name, :kind, :hue, :output, :devices, :lanes, :regions)
    KINDS = %w[notes audio return group master].freeze
    HUES = %w[madder indigo weld moss walnut lichen].freeze

    def check
      fault!("unknown_kind", "/kind", "There is no kind of track #{kind.inspect}; there is #{KINDS.join(', ')}.") unless KINDS.include?(kind)
      fault!("unknown_hue", "/hue", "There is no hue #{hue.inspect}; there is #{HUES.join(', ')}.") unless HUES.include?(hue)
      [devices, lanes, regions].each(&:freeze)
      check_devices
      check_regions
    end

    def channel = device("channel")
    def holds_regions? = %w[notes audio].include?(kind)

    # @raise [NotFound]
    def device(id)
      devices.find { |device| device.id == id } or
        raise NotFound.of("unknown_device", "", "#{name} has no device #{id.inspect}; it has #{devices.map(&:id).join(', ')}.")
    end

    # Regions that sound somewhere in from...to.
    def regions_in(from, to)
      first = regions.bsearch_index { |region| region.end_tick > from } or return []
      regions[first..].take_while { |region| region.start_tick < to }
    end

    private

    def check_devices
      fault!("duplicate_id", "/devices", "The devices of #{name} need different ids.") if devices.map(&:id).uniq.size < devices.size
      return if devices.last&.id == "channel" && devices.last.type == "channel"

      fault!("no_channel", "/devices", "The chain of #{name} does not end in its channel.")
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
