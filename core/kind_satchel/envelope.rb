# frozen_string_literal: true

require_relative "envelope/shapes"
require_relative "envelope/point"
require_relative "envelope/roles"
require_relative "envelope/clocks"
require_relative "envelope/segment"
require_relative "envelope/envelope"
require_relative "envelope/splice"
require_relative "envelope/snippet"
require_relative "envelope/selection"
require_relative "envelope/thinning"
