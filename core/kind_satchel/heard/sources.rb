# frozen_string_literal: true

require_relative "sources/source"
require_relative "sources/frame"
require_relative "sources/acting"
require_relative "sources/same_inputs"
