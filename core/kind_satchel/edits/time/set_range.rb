# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the stretch of song that playing repeats, or switches it on or off.
    module SetRange
      def self.call(song, input)
        range = song.range.with(**input)
        text = "#{song.meters.text(range.start_tick)} to #{song.meters.text(range.end_tick)}"
        moved = input.key?(:start_tick) || input.key?(:end_tick)
        words = moved ? "set the range #{text}" : "switch the range #{range.on ? 'on' : 'off'}"
        [song.with(range:), words]
      end
    end
  end
end
