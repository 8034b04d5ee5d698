# frozen_string_literal: true

module KindSatchel
  # What the parameters of a song, and what has them, are called.
  module Names
    # What a parameter is called, also where it is missing: "Cutoff", or "Cutoff (missing)".
    # @example
    #   song.parameter_name(Address.parse("rope-bass/synth/cutoff")) #=> "Cutoff"
    # @return [String]
    def parameter_name(address)
      known = address.setting? ? owned(address).title : parameter?(address)&.name
      known || "#{address.parameter_id.tr('-', ' ').capitalize} (missing)"
    end

    # @return [String] the name of what has a parameter, or its id where it is missing
    def owner_name(address) = owned(address).name

    # What a parameter is called where nothing around it says whose it is: "Volume of Fog Pad", "Depth of Chorus on
    # Fog Pad" ("Chorus 2" where its chain has two), "Depth of Cutoff in Mooring", "Tempo".
    # @return [String]
    def full_name(address)
      name = parameter_name(address)
      return name if address.song?

      device = device_name(address)
      return "#{name} of #{owner_name(address)}" unless device

      "#{name} of #{device} #{address.clip_id ? 'in' : 'on'} #{owner_name(address)}"
    end

    private

    # What a device is called in its chain; nil for a channel, and for what is no device.
    def device_name(address)
      return unless parameter?(address) && !address.setting?

      devices = owner(address).devices
      device = devices.find { |one| one.id == address.device_id }
      return if device.type == "channel"

      alike = devices.select { |one| one.type == device.type }
      alike.size > 1 ? "#{device.type_rules.name} #{alike.index(device) + 1}" : device.type_rules.name
    end
  end
end
