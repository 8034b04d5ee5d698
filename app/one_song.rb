# frozen_string_literal: true

ENV["RACK_ENV"] ||= "production"
require_relative "packages"
require_relative "server"
require "puma"
require "puma/server"
require "tmpdir"

# Serves one song document from a database of its own, which goes with it. For programs of their own: {Server} holds
# for a whole process.
class OneSong
  THREADS = 8

  # @param path [String] the document
  # @param store [String] the folder of the app's sounds, which is only read
  def initialize(path, store)
    @path = path
    @store = store
  end

  # @param port [Integer] 0 for any that is free
  # @yieldparam song [KindSatchel::Song]
  # @yieldparam id [Integer] the one it has there
  # @yieldparam base [String] the address of the server
  # @raise [KindSatchel::InvalidInput], [RuntimeError]
  def served(port = 0)
    unless File.exist?(File.join(Server.public_folder, "index.html"))
      raise "The pages are not built yet; run bin/demo once."
    end

    song = Schemas.read_song(File.read(@path)).song
    Dir.mktmpdir("satchel-song") do |folder|
      Database.connect(File.join(folder, "song.sqlite3"))
      Server.sounds.take_shipped(Server.shipped_sounds)
      bring_sounds(song)
      id = Server.shelf.add(song)["id"]
      listening(port) { |base| yield song, id, base }
    end
  end

  private

  # Sounds that people took in are in the app's own store, by their digests.
  def bring_sounds(song)
    Server.sounds.missing(song).each do |one|
      path = File.join(@store, one["sound"][0, 2], "#{one['sound']}.wav")
      if File.exist?(path)
        Server.sounds.take(path,
                           name: one["sound"][0,
                                              12])
      else
        warn("#{one['sound']} is not in the store; it stays silent.")
      end
    end
  end

  def listening(port)
    server = Puma::Server.new(Server, nil, min_threads: 1, max_threads: THREADS)
    found = server.add_tcp_listener("127.0.0.1", port).addr[1]
    server.run
    yield "http://127.0.0.1:#{found}"
  ensure
    server&.stop(true)
  end
end
