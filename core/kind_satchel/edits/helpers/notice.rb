# frozen_string_literal: true

module KindSatchel
  module Edits
    # What an edit brings with it. `code` is a stable word for programs, `ids` what it is about, `text` a phrase for
    # people:
    #
    # - along      what goes along (names of parameters in the text)
    # - lost       moves that find no place and will be off
    # - follow     lane points follow
    # - cut        regions that are cut or replaced (their ids)
    # - separated  clips that are made separate first (their ids)
    # - held       a knob that is held by hand from now on (its address)
    # - same       what is heard stays, within what playback keeps to (see {Heard::Ramps})
    # - difference what is heard changes by more: the largest difference
    # - unmatched  moves that found no match
    # - loose      clips (their ids) whose moves wait as loose ends
    # - left_out   what finds no place and is not written
    # - thinned    how many points were made of how much that was played, or how close they are to it
    # - shared     a clip (its id) that is heard in several regions, which change with it
    # - overruled  what overrules the move, so that it is not heard there
    # - limited    no amount makes all of what was played; there it stays at its limit
    # - replaced   moves (their ids) that were off and are replaced
    # - stilled    what moved settings of a move is taken in and switched off
    # - undriven   what macros drove (their addresses) rests on its own knobs again
    # - no_clip    where no clip sounds the lane takes what was played
    # - handed_back  knobs (their addresses) that are no longer held by hand
    # - once       a clip is made separate where it was played, and a move runs once over it
    # - written_over  how much of what was played later loops write over
    # - loops_heard  how many of the loops that a move is varied over are heard, and where
    # - idle       where the role of a move can do nothing
    # - takes_dropped  samples of older passes that are no longer kept, to make room
    Notice = Struct.new(:code, :ids, :text) do
      # One notice is one thing, also where lists are put together.
      undef_method :to_a

      # @return [Hash] plain data
      def to_record = { "code" => code, "ids" => ids, "text" => text }
    end
  end
end
