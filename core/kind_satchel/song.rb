# frozen_string_literal: true

require_relative "song/roles"
require_relative "song/clocks"
require_relative "song/envelope"
require_relative "song/snippet"
require_relative "song/device"
require_relative "song/content"
require_relative "song/clip"
require_relative "song/region"
require_relative "song/track"
require_relative "song/directory"
require_relative "song/song"
