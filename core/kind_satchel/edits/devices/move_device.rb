# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves an effect along its chain: before another device, or to its end.
    module MoveDevice
      def self.call(song, input)
        owner = Chains.owner!(song, input)
        device = Chains.device!(owner, input[:device_id], "/device_id")
        if device.type_rules.role == "instrument"
          raise InvalidInput.of("stays_first", "/device_id",
                                "An instrument stands between note effects and effects.")
        end

        next_song, = Chains.put(song, owner, device, input[:before])
        [next_song, "move #{device.type_rules.name.downcase} of #{owner.name}"]
      end
    end
  end
end
