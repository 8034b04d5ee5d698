# frozen_string_literal: true

require_relative "records/form"
require_relative "records/records"
require_relative "records/points"
require_relative "records/devices"
require_relative "records/clips"
require_relative "records/heads"
require_relative "records/older"
require_relative "records/document"
require_relative "records/parts"
require_relative "records/old_tempo"
require_relative "records/deltas"
require_relative "records/card"
