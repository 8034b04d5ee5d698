# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a change of time signature out; the one before it goes on. `bar` is the bar it begins with, above 1.
    module RemoveMeter
      def self.call(song, input)
        bar = input[:bar]
        change = song.meters.changes.find { |one| one.bar == bar }
        raise InvalidInput.of("no_meter", "/bar", "No time signature begins with bar #{bar}.") unless change
        raise InvalidInput.of("first_meter", "/bar", "The first time signature can be set, not taken out.") if bar == 1

        [song.with(meters: song.meters.without(bar)), "take the meter of bar #{bar} out"]
      end
    end
  end
end
