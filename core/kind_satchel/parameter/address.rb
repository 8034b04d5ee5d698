# frozen_string_literal: true

module KindSatchel
  # Names one parameter of a song: `track/device/parameter`, such as `rope-bass/channel/volume`.
  #
  # @example
  #   Address.parse("rope-bass/synth/cutoff").device_id #=> "synth"
  class Address < Value.of(:track_id, :device_id, :parameter_id)
    ID = /[a-z0-9][a-z0-9-]{0,63}/
    # First ids that are kept for other things than tracks: the song's own parameters, settings of moves, a clip's own chain.
    RESERVED = /\A(?:song|move|clip-.*)\z/
    PATTERN = %r{\A(#{ID})/(#{ID})/(#{ID})\z}

    # @raise [InvalidInput] when the text is not of that form
    def self.parse(text)
      match = PATTERN.match(text.to_s)
      raise InvalidInput.of("bad_address", "", "#{text.inspect} is not an address; write track/device/parameter.") unless match

      new(track_id: match[1], device_id: match[2], parameter_id: match[3])
    end

    def to_s = "#{track_id}/#{device_id}/#{parameter_id}"
  end
end
