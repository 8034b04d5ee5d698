# frozen_string_literal: true

require_relative "owners/of_device"
require_relative "owners/of_move"
require_relative "owners/of_song"

module KindSatchel
  # What has parameters. For an address of a song each of them answers:
  #
  # - `name` what people call it, or its id where it is missing
  # - `parameter` the {Parameter}; `knob` its resting value, normalised; `held_value` the value a hand holds it at,
  #   nil for none
  # - `turned(value)` the song with another resting value; `held(value)` the one in which a hand holds it, nil hands
  #   it back
  # - `tracks` on which what moves it is in its own place; `lanes` for it; `lane_track`, where a new one lies
  #
  # All but `name` raise {NotFound}, naming what is missing. A new kind is one file and one line here.
  module Owners
    # @param song [Song]
    # @param address [Address]
    def self.of(song, address)
      return OfMove.new(song, address) if address.setting?

      address.song? ? OfSong.new(song, address) : OfDevice.new(song, address)
    end
  end
end
