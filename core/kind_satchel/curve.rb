# frozen_string_literal: true

require_relative "curve/fit"
require_relative "curve/shapes"
require_relative "curve/point"
require_relative "curve/segment"
require_relative "curve/splice"
require_relative "curve/selection"
require_relative "curve/thinning"
