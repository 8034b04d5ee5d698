# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the time signature of the song.
    module SetMeter
      def self.call(song, input)
        meter = Timing::Meter.new(beats: input[:beats], unit: input[:unit])
        [song.with(meter:), "set the meter to #{meter.beats}/#{meter.unit}"]
      end
    end
  end
end
