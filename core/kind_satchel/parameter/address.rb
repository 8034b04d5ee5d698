# frozen_string_literal: true

module KindSatchel
  # Names one parameter of a song: `track/device/parameter`, such as `rope-bass/channel/volume`; of a device in a
  # clip's own chain `clip-<clip id>/device/parameter`; of a move's own settings `move/<envelope id>/<setting>` (see
  # {Settings}); the tempo is `song/clock/tempo`.
  #
  # @example
  #   Address.parse("rope-bass/synth/cutoff").device_id #=> "synth"
  class Address < Value.of(:owner_id, :device_id, :parameter_id)
    ID = /[a-z0-9][a-z0-9-]{0,63}/
    # Sends are named after returns, so they are longer.
    PARAMETER = /[a-z0-9][a-z0-9-]{0,127}/
    # First ids that are kept for other things than tracks: the song's own parameters, settings of moves, a clip's own
    # chain.
    RESERVED = /\A(?:song|move|clip-.*)\z/
    CHAIN = "clip-"
    MOVE = "move"
    SONG = "song"
    PATTERN = %r{\A((?:#{CHAIN})?#{ID})/(#{ID})/(#{PARAMETER})\z}

    # Everything is found by address, so its hash is worked out once.
    attr_reader :hash

    def check
      @hash = [owner_id, device_id, parameter_id].hash
    end

    def eql?(other) = equal?(other) || super

    # @raise [InvalidInput] when the text is not of that form
    def self.parse(text)
      match = PATTERN.match(text.to_s)
      unless match
        raise InvalidInput.of("bad_address", "",
                              "#{text.inspect} is not an address; write track/device/parameter.")
      end

      new(owner_id: match[1], device_id: match[2], parameter_id: match[3])
    end

    # The id under which a clip's own chain goes in addresses.
    def self.chain_id(clip_id) = CHAIN + clip_id

    # A setting of a move.
    # @param name [String] see {Settings}
    def self.setting(envelope_id, name) = new(owner_id: MOVE, device_id: envelope_id, parameter_id: name)

    # The song's own tempo.
    # @return [Address]
    def self.tempo = @tempo ||= new(owner_id: SONG, device_id: "clock", parameter_id: "tempo")

    # Whether it is one of the song itself.
    def song? = owner_id == SONG

    # Whether it is a setting of a move.
    def setting? = owner_id == MOVE

    # @return [String, nil] the move that it is a setting of
    def envelope_id = (device_id if setting?)

    # @return [String, nil] the clip whose chain it lies in; nil for a parameter of a track
    def clip_id = (owner_id.delete_prefix(CHAIN) if owner_id.start_with?(CHAIN))

    # @return [String] "rope-bass/synth/cutoff"
    def to_s = "#{owner_id}/#{device_id}/#{parameter_id}"
  end
end
