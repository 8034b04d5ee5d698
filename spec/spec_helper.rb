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
  config.define_derived_metadata(file_path: %r{/spec/core/}) { |data| data[:core] = true }
  config.include SongHelpers
end
