# frozen_string_literal: true

module KindSatchel
  module Edits
    # Embeds an envelope for a parameter in a clip: one that sets, unless another role is asked for. It starts as one
    # point that changes nothing: the knob's resting value, 100 %, or 0.
    module EmbedEnvelope
      def self.call(song, input)
        clip = song.clip(input[:clip_id])
        address = Inputs.target(song, input[:address])
        reachable!(song, clip, address)
        role = Inputs.role(song, address, input)
        taken!(song, clip, address, role)
        envelope = Transfer::Lanes.resting(song, address, role)
        next_song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, envelope]))
        [next_song, "embed #{song.parameter(address).name} in #{clip.name}"]
      end

      # A clip with material moves parameters of the tracks it sounds on, of its own effects and of its own moves;
      # only a carrier clip reaches further.
      def self.reachable!(song, clip, address)
        return if clip.carrier?

        tracks = song.directory.regions_of_clip(clip.id).map { |placed| placed.track.id }
        return if tracks.include?(address.owner_id) || address.clip_id == clip.id || clip.own_setting?(address)

        name = song.owner_name(address)
        own = "The effects of #{name} are its own; #{clip.name} does not move them."
        setting = "#{name} is no move of #{clip.name}; a clip moves the settings of its own moves."
        words = address.clip_id ? own : "#{clip.name} does not sound on #{name}; a clip moves its own track."
        words = setting if address.setting?
        raise InvalidInput.of("out_of_reach", "/address", words)
      end

      # @raise [InvalidInput] where the clip has such an envelope
      def self.taken!(song, clip, address, role)
        return unless clip.envelope_for(address, role)

        raise InvalidInput.of("already_there", "/address",
                              "#{clip.name} already holds an envelope that #{role}s #{song.parameter(address).name}.")
      end
      private_class_method :reachable!
    end
  end
end
