# frozen_string_literal: true

require_relative "conversion/clip_changes"
require_relative "conversion/lay_out"
require_relative "conversion/pack"

module KindSatchel
  # Moves turned from one kind into the other, with nothing heard changing beyond a stated bound:
  #
  # - {LayOut}  clip envelopes become points of track lanes
  # - {Pack}    a stretch of lane becomes envelopes in the clips beneath
  # - {ClipChanges}  clips with other envelopes for some of their regions, made separate where others share them
  module Conversion
  end
end
