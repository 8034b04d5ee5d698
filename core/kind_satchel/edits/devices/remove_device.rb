# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a device out of its chain. What moved it stays where it lives, as loose ends, and acts again when a device
    # that answers stands there.
    module RemoveDevice
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        device = Chains.device!(owner, input[:device_id], "/device_id")
        next_song = song.with_owner(owner.with(devices: owner.devices.reject { |other| other.equal?(device) }))
        words = "take #{device.type_rules.name.downcase} out of #{owner.name}"
        [next_song, words, [*waiting(Chains.moves_of(song, owner, device.id)), *undriven(song, device)]]
      end

      # What its macros drove goes back to its own knob.
      def self.undriven(song, device)
        targets = device.macros.flat_map(&:drives).map(&:target)
        return [] if targets.empty?

        names = targets.first(3).map { |target| Macros.words(song, target) }.join(", ")
        [Notice.new("undriven", targets.map(&:to_s),
                    "#{names}#{" and #{targets.size - 3} more" if targets.size > 3} rest on their own knobs again")]
      end

      # @return [Array<Notice>] how many moves wait, for whoever reads it
      def self.waiting(homes)
        return [] if homes.empty?

        [Notice.new("loose", homes.map do |home|
          home.envelope.id
        end, "#{PlainText.count(homes.size, 'move')} of it #{homes.size == 1 ? 'waits' : 'wait'}")]
      end
    end
  end
end
