# frozen_string_literal: true

# The core alone, with the helpers its specs use.
require "json"
require "rspec"
require "tmpdir"
require_relative "folders"
require_relative "../../core/kind_satchel"
require_relative "../../db/demo_song"
%w[faults random_edits random_songs seeds song_helpers].each { |name| require_relative "../support/#{name}" }

# Mutant asks each example what it is about; ours tell of the trade, not of classes, so the folder answers for them.
RSpec.configure do |config|
  config.include SongHelpers
  config.disable_monkey_patching!
  config.filter_run_excluding(:long)
  config.define_derived_metadata { |data| data[:mutant_expression] = ENV.fetch("MUTATED").split }
end
