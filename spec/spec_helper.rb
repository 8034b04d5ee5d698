# frozen_string_literal: true

require "bundler/setup"
require "fileutils"
require "tmpdir"
require "json"
require_relative "../core/kind_satchel"
require_relative "../db/demo_song"
Dir[File.join(__dir__, "support/*.rb")].each { |file| require file }

RSpec.configure do |config|
  config.expect_with(:rspec) { |expectations| expectations.syntax = :expect }
  config.mock_with(:rspec) { |mocks| mocks.verify_partial_doubles = true }
  config.disable_monkey_patching!
  # A whole `bin/test` leaves out what takes long; `bin/test long`, and whoever names files, runs it.
  config.filter_run_excluding(:long) if ENV["SATCHEL_QUICK"]
  config.define_derived_metadata(file_path: %r{/spec/core/}) { |data| data[:core] = true }
  config.include SongHelpers
end
