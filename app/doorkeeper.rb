# frozen_string_literal: true

require "puma"
require "puma/client"
require_relative "gate"

# Refuses bodies by their heads. The web server takes the whole body of a request in, to a file, before anything of
# the app is asked; so who may send how much is looked at where it sets that up. What is refused is read no further,
# and its connection ends.
module Doorkeeper
  # What the app is told of a refused body: status, code, message.
  REFUSED = "satchel.refused"

  # @param env [Hash] of a request whose head was read
  # @param address [String] of the other end of its socket
  # @return [Array(Integer, String, String), nil]
  def self.refusal(env, address)
    return unless env.key?("CONTENT_LENGTH") || env.key?("HTTP_TRANSFER_ENCODING")

    path, local, key = asked(env, address)
    return [401, "no_key", Gate::NO_KEY] unless local || key || path.start_with?(Gate::ENTRANCE)

    most = most(path, local, key)
    [413, "too_large", "The request is larger than #{most / 1024 / 1024} MB."] if env["CONTENT_LENGTH"].to_i > most
  end

  # @return [Integer] bytes
  def self.most(path, local, key)
    most = Guards.largest(path)
    return most if local || (key&.kind == "studio" && Guards.file?(path))

    [most, Rights::LARGEST_BODY].min
  end

  # @return [Integer] the same by the head of a request
  def self.most_of(env, address) = most(*asked(env, address))

  # @return [Array] its path, whether it comes from this machine, and the key of one from elsewhere
  def self.asked(env, address)
    local = Gate.local?(env, address)
    [env["REQUEST_PATH"].to_s, local, local ? nil : Gate.key(env, seen: false)]
  end

  # So much of what is refused is taken off a socket, and so long.
  MOST_DRAINED = 4 * 1024 * 1024
  DRAIN_SECONDS = 0.3
  PART = 64 * 1024

  # Reads what still comes of a refused body, for a bounded time, so that its sender gets the answer.
  def self.drain(socket)
    finish = Process.clock_gettime(Process::CLOCK_MONOTONIC) + DRAIN_SECONDS
    (MOST_DRAINED / PART).times do
      left = finish - Process.clock_gettime(Process::CLOCK_MONOTONIC)
      break unless left.positive? && socket.wait_readable([left, 0.05].min)
      break if socket.read_nonblock(PART, exception: false).nil?
    end
  rescue SystemCallError, IOError
    nil
  end

  # What is laid over the web server's own client.
  module Client
    # Refuses by the head, before any of the body is taken.
    def setup_body
      refused = Doorkeeper.refusal(@env, peerip.to_s)
      return super unless refused

      @env[REFUSED] = refused
      @refused = true
      # What follows on this connection is the rest of the body.
      @env["HTTP_CONNECTION"] = "close"
      @env.delete("HTTP_TRANSFER_ENCODING")
      @env.delete("CONTENT_LENGTH")
      @read_header = false
      @buffer = nil
      @body = Puma::Client::EmptyBody
      set_ready
      true
    end

    # A body in chunks says only by and by how long it is.
    # @raise [Puma::HttpParserError]
    def write_chunk(text)
      super.tap do
        most = @env["satchel.most"] ||= Doorkeeper.most_of(@env, peerip.to_s)
        next if @chunked_content_length <= most

        @refused = true
        raise Puma::HttpParserError, "The request is larger than #{most} bytes."
      end
    end

    # What has come already is taken off the socket first: closed over it, the answer would be lost.
    def close
      Doorkeeper.drain(to_io) if @refused
      super
    end
  end

  Puma::Client.prepend(Client)
end
