# frozen_string_literal: true

require "io/wait"
require "openssl"
require "websocket/driver"

# A websocket from outside, as a device has it.
class FarSocket
  attr_reader :url, :heard

  def initialize(io, url, headers)
    @io, @url, @heard = io, url, []
    @driver = WebSocket::Driver.client(self)
    headers.each { |name, value| @driver.set_header(name, value) }
    @driver.on(:message) { |event| @heard << JSON.parse(event.data) }
    @driver.on(:close) { @closed = true }
    @driver.start
  end

  def write(data) = @io.write(data)
  def say(data) = @driver.text(data.is_a?(String) ? data : JSON.generate(data))

  # Reads until a block is content, for some seconds at the most.
  def until_heard(seconds = 5)
    finish = Process.clock_gettime(Process::CLOCK_MONOTONIC) + seconds
    until yield(@heard) || @closed
      return false if Process.clock_gettime(Process::CLOCK_MONOTONIC) > finish

      data = read
      @driver.parse(data) if data.is_a?(String)
      @io.to_io.wait_readable(0.1) if data.is_a?(Symbol)
    end
    true
  end

  def closed? = @closed
  def close = @io.close

  private

  def read
    @io.read_nonblock(4096, exception: false).tap { |data| @closed = true if data.nil? }
  rescue SystemCallError, OpenSSL::SSL::SSLError
    @closed = true
    nil
  end
end
