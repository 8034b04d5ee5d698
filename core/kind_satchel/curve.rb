# frozen_string_literal: true

require_relative "curve/grid"
require_relative "curve/chords"
require_relative "curve/point"
require_relative "curve/shapes"
require_relative "curve/segment"
require_relative "curve/splice"
require_relative "curve/backwards"
require_relative "curve/selection"
require_relative "curve/thinning"
