# frozen_string_literal: true

module KindSatchel
  # What hands do while the song plays, made into material: in seconds of the song at the loudspeaker.
  #
  # - {NotePass} notes that were played in, written into the clips of a track
  module Perform
  end
end

require_relative "perform/note_pass"
