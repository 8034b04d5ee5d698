# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the time signature from a bar on, up to the next one that is set. `bar` is counted from 1 (the default);
    # `beats` is 1..64, `unit` 1, 2, 4, 8, 16 or 32.
    module SetMeter
      def self.call(song, input)
        meter = Timing::Meter.new(beats: input[:beats], unit: input[:unit])
        bar = input.fetch(:bar, 1)
        where = " from bar #{bar}" unless bar == 1 && song.meters.changes.size == 1
        [song.with(meters: song.meters.changed(bar, meter)), "set the meter to #{meter.beats}/#{meter.unit}#{where}"]
      end
    end
  end
end
