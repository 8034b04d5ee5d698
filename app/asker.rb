# frozen_string_literal: true

require "socket"

# Whoever asked for long work: where its progress is told, and whether anybody still waits for it.
class Asker
  # Raised where it is no use to go on.
  class Left < StandardError; end

  TOKEN = /\A[a-z0-9-]{8,64}\z/
  # States of a connection whose other end has closed it (tcp(7), TCP_INFO; their numbers are those of Linux).
  CLOSED = [6, 7, 8, 9, 11].freeze

  # @param env [Hash] of the request; the token of the work is in its header X-Work
  def self.of(env)
    token = env["HTTP_X_WORK"]
    new(token&.match?(TOKEN) ? token : nil, env["puma.socket"]&.to_io)
  end

  # @return [String, nil] what it listens to for "progress", and cancels by
  attr_reader :token

  # @param socket [IO, nil]
  def initialize(token = nil, socket = nil)
    @token = token
    @socket = socket
  end

  def gone?
    return false unless @socket
    return true if @socket.closed?

    return false unless @socket.is_a?(TCPSocket)

    CLOSED.include?(@socket.getsockopt(Socket::IPPROTO_TCP, Socket::TCP_INFO).data.unpack1("C"))
  rescue SystemCallError, IOError
    true
  end

  # @raise [Left]
  def there! = gone? ? raise(Left) : nil
end
