# frozen_string_literal: true

require_relative "conversion/result"
require_relative "conversion/inverse"
require_relative "conversion/written"
require_relative "conversion/clip_changes"
require_relative "conversion/moved"
require_relative "conversion/drawn"
require_relative "conversion/lay_out"
require_relative "conversion/pack"
require_relative "conversion/one_clip"
require_relative "conversion/role_change"

module KindSatchel
  # Moves turned from one kind into the other, with nothing heard changing beyond a stated bound:
  #
  # - {Result}      the next song, how far it is heard otherwise, and what else is worth telling
  # - {Inverse}     what an envelope must give so that a value is heard
  # - {LayOut}      clip envelopes become points of track lanes, each in its role
  # - {Pack}        a stretch of lane becomes envelopes in the clips beneath
  # - {RoleChange}  an envelope that sets becomes one that scales or shifts, and the other way about
  # - {Drawn}       an LFO turned into points; {Moved} says which moves cannot be written again
  # - {Written}     a clip envelope as points in song time
  # - {ClipChanges} clips with other envelopes for some of their regions, made separate where others share them
  module Conversion
  end
end
