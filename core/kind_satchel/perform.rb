# frozen_string_literal: true

module KindSatchel
  # What hands do while the song plays, made into material: in seconds of the song at the loudspeaker.
  #
  # - {NotePass} notes that were played in, written into the clips of a track
  # - {HandBack} parameters handed back to what moves them
  # - {Stroke}   what a hand did with one parameter, from touch to where its move ends
  # - {Course}   what is set over a stretch, as points
  # - {Amounts}  what an envelope must give for a stroke to be heard
  # - {Strayed}  how far what is heard lies from a stroke
  # - {HandPass} strokes written into clips, lanes or a carrier; with {RegionOnce} and {PassEnvelope}, which prepare
  #   what is written into
  # - {WrittenPass} what was written, made of {PlayedPart}s
  # - {Takes}    the laps of a pass, and what was chosen of them
  module Perform
  end
end

require_relative "perform/note_pass"
require_relative "perform/hand_back"
require_relative "perform/stroke"
require_relative "perform/course"
require_relative "perform/amounts"
require_relative "perform/strayed"
require_relative "perform/played_part"
require_relative "perform/written_pass"
require_relative "perform/pass_envelope"
require_relative "perform/region_once"
require_relative "perform/hand_pass"
require_relative "perform/takes"
