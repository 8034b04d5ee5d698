# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a stretch of the whole song out, tempo included; what lies behind it moves up.
    module DeleteTime
      def self.call(song, input)
        from, to = input.values_at(:from_tick, :to_tick)
        raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from

        [Transfer::SongTime.closed(song, from, to),
         "take out #{song.meters.text(from)} to #{song.meters.text(to)} of the song"]
      end
    end
  end
end
