# frozen_string_literal: true

require "puma"
require "puma/minissl"

# One client's socket, taken over from the web server. What is said waits here until the socket takes it; nothing of
# it ever waits for the client: {#put} only lays down, {#push} writes what fits. Only the rounds that own it read and
# push (see {Rounds}); anybody may put.
class Outlet
  # Who takes nothing for so long while something waits is let go.
  STUCK_SECONDS = 5
  # So many bytes are read of one client in one round.
  READ = 16 * 1024
  # And so many written.
  WRITE = 256 * 1024

  # @param socket [IO, Puma::MiniSSL::Socket]
  # @param most [Integer] what may wait, in bytes; more, and it is let go
  def self.of(socket, most:) = (socket.is_a?(Puma::MiniSSL::Socket) ? Sealed : self).new(socket, most)

  # @return [IO] to wait on
  attr_reader :to_io

  def initialize(socket, most)
    @to_io = socket.to_io
    @most = most
    @waiting = +"".b
    @lock = Mutex.new
    @gone = false
  end

  # Lays down what is to be written. Too much, and the client is gone.
  def put(text)
    @lock.synchronize do
      next if @gone

      @taken_at = Outlet.now unless waiting?
      @waiting << text.b
      @gone = true if @waiting.bytesize > @most
    end
  end

  def waiting? = !@waiting.empty?
  def gone? = @gone || @to_io.closed?

  # Ends it from the next round on; what waits is not written.
  def leave = @gone = true

  # Whether nothing was taken of what waits for too long.
  def stuck? = @lock.synchronize { waiting? && Outlet.now - @taken_at > STUCK_SECONDS }

  # Writes what the socket takes at once.
  def push = @lock.synchronize { write_out(WRITE) unless gone? }

  # What came, up to so much of it; nothing is an empty text.
  # @return [String]
  def read
    @lock.synchronize do
      data = @to_io.read_nonblock(READ, exception: false)
      @gone = true if data.nil?
      opened(data.is_a?(String) ? data : "")
    end
  end

  # Without a word: a client that does not read would not hear it.
  def close = (@to_io.close unless @to_io.closed?)

  # @return [Float] seconds of a clock that only goes on
  def self.now = Process.clock_gettime(Process::CLOCK_MONOTONIC)

  private

  def opened(data) = data

  def write_out(most)
    until @waiting.empty? || most <= 0
      taken = taken(@waiting) or return
      most -= taken
      @waiting = @waiting.byteslice(taken..)
    end
  end

  # @return [Integer, nil] nil when the socket takes no more
  def taken(text)
    written = @to_io.write_nonblock(text, exception: false)
    return if written == :wait_writable

    @taken_at = Outlet.now
    written
  end

  # The same in secret. The web server's own socket waits in all it writes; so its engine seals, and the bytes go to
  # the socket beneath it.
  class Sealed < Outlet
    PART = 16 * 1024

    # @raise [ArgumentError]
    def initialize(socket, most)
      super
      @engine = socket.instance_variable_get(:@engine) or raise ArgumentError, "A secret socket without an engine."
      @sealed = +"".b
    end

    def waiting? = super || !@sealed.empty?

    private

    # What the engine says by itself, of keys and such, goes out with the rest.
    def opened(data)
      @engine.inject(data) unless data.empty?
      text = +"".b
      while (part = @engine.read)
        text << part
      end
      @taken_at = Outlet.now unless waiting?
      collect
      text
    end

    def write_out(most)
      while most.positive?
        seal if @sealed.empty?
        return if @sealed.empty?

        taken = taken(@sealed) or return
        most -= taken
        @sealed = @sealed.byteslice(taken..)
      end
    end

    def seal
      return if @waiting.empty?

      sealed = @engine.write(@waiting.byteslice(0, PART)) || 0
      @waiting = @waiting.byteslice(sealed..)
      collect
    end

    def collect
      while (part = @engine.extract)
        @sealed << part
      end
    end
  end
  private_constant :Sealed
end
