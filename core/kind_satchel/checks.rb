# frozen_string_literal: true

require_relative "checks/uneven_starts"
require_relative "checks/conflicts"

module KindSatchel
  # What a song may hold that its maker did not mean, a file each.
  module Checks
  end
end
