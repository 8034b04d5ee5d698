# frozen_string_literal: true

module KindSatchel
  module Edits
    # What an edit brings with it. `code` is a stable word for programs, `ids` what it is about, `text` a phrase for people:
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
    Tell = Struct.new(:code, :ids, :text) do
      def to_record = { "code" => code, "ids" => ids, "text" => text }
    end
  end
end
