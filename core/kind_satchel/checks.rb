# frozen_string_literal: true

require_relative "checks/uneven_starts"
require_relative "checks/conflicts"
require_relative "checks/as_sounded"
require_relative "checks/loose_ends"
require_relative "checks/trial"

module KindSatchel
  # What a song may hold that its maker did not mean, a file each; {LooseEnds} lists all of it.
  module Checks
  end
end
