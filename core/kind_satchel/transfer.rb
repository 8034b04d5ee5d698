# frozen_string_literal: true

require_relative "transfer/match"
require_relative "transfer/copies"
require_relative "transfer/clips"
require_relative "transfer/lanes"
require_relative "transfer/drop"
require_relative "transfer/song_stretch"
require_relative "transfer/restarts"
require_relative "transfer/phases"
require_relative "transfer/song_time"
require_relative "transfer/moves_table"
require_relative "transfer/track_copy"
require_relative "transfer/graft"
require_relative "transfer/extract"

module KindSatchel
  # What goes along when material goes elsewhere:
  #
  # - {Match}  which parameter of one track answers to a parameter of another
  # - {Copies}  moves once more, under ids of their own; what moves their settings follows
  # - {Clips}  a clip that comes to another track, its envelopes turned to what answers there
  # - {Lanes}  stretches of lane that follow the regions under them
  # - {Drop}  a kept move as it comes to an envelope
  # - {SongStretch}, {SongTime}  stretches of the whole song: taken out, opened, filled
  # - {Restarts}, {Phases}  what lets the waves of lanes and clips go on behind them as they did
  # - {MovesTable}  which moves of a clip or track come to another, and which do not
  # - {TrackCopy}  a track once more, with or without its moves
  # - {Extract}, {Graft}  regions of a song by themselves, and tracks of one song brought into another
  module Transfer
  end
end
