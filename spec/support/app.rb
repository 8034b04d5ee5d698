# frozen_string_literal: true

# The app on a database of its own, and requests to it.
module AppHelpers
  DATABASE = File.expand_path("../../tmp/test#{ENV.fetch('TEST_ENV_NUMBER', nil)}.sqlite3", __dir__)

  def self.start
    return if @started

    ENV["RACK_ENV"] = "test"
    FileUtils.mkdir_p(File.dirname(DATABASE))
    FileUtils.rm_f(Dir["#{DATABASE}*"])
    require_relative "../../app/server"
    require_relative "../../db/demo_seed"
    require "rack/test"
    FileUtils.rm_rf("#{DATABASE}-sounds")
    Server.set :installable, false
    Database.connect(DATABASE)
    Server.sounds.take_shipped(Server.shipped_sounds)
    @started = true
  end

  def app = Server

  # The app as this machine meets it, for requests that are made without a browser or a test session.
  def from_here = ->(env) { Server.call(env.merge("REMOTE_ADDR" => "127.0.0.1")) }

  def call(method, path, data = nil, headers = {})
    body = data.is_a?(String) ? data : data && JSON.generate(data)
    custom_request(method, path, {}, { "HTTP_HOST" => "127.0.0.1", "CONTENT_TYPE" => "application/json", input: body || "" }.merge(headers))
    return {} if last_response.body.empty?

    JSON.parse(last_response.body).tap { |answer| Answers.check!(method, path, answer) if last_response.ok? }
  end

  def get_json(path) = call("GET", path)
  def post_json(path, data = {}, headers = {}) = call("POST", path, data, headers)

  # A fresh copy of the demo song on the shelf.
  # @return [Integer] its id
  def plant(song = DemoSong.build) = Server.shelf.add(song)["id"]

  def snapshot(id) = Server.open_songs.fetch(id)
  def revision(id) = snapshot(id).revision

  def edit(id, name, inputs, **more)
    post_json("/api/songs/#{id}/edits", { revision: revision(id), edit: name, inputs:, **more })
  end
end

RSpec.configure do |config|
  %i[api system].each do |kind|
    config.define_derived_metadata(file_path: %r{/spec/#{kind}/}) { |data| data[:app] = true }
  end
  config.before(:context, :app) { AppHelpers.start }
  config.include AppHelpers, app: true
  config.before(:each, :app) { extend Rack::Test::Methods }
end
