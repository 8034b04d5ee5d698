# frozen_string_literal: true

# Open tabs that want to know when a song changes: server-sent events over sockets taken over from the web server, so
# that a waiting tab costs no thread.
class Listeners
  HEAD = "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nCache-Control: no-store\r\nConnection: close\r\n\r\nretry: 1000\n\n"
  HEARTBEAT_SECONDS = 15
  # What may wait for a tab that does not read; more, and it is let go.
  MOST_WAITING = 4 * 1024 * 1024

  # One tab: what it has not taken yet waits here.
  class Tab
    attr_reader :socket

    def initialize(socket)
      @socket = socket
      @waiting = +""
      @lock = Mutex.new
    end

    # Never waits itself. @return [Boolean] whether the tab is still there
    def send(text)
      @lock.synchronize do
        @waiting << text.b
        @waiting.bytesize <= MOST_WAITING && flush
      end
    end

    # @return [Boolean] whether the tab is still there
    def push = @lock.synchronize { flush }

    def waiting? = !@waiting.empty?

    def close = (@socket.close unless @socket.closed?)

    private

    # A socket may take less than it is given; the rest goes when it is ready again.
    def flush
      until @waiting.empty?
        taken = @socket.write_nonblock(@waiting, exception: false)
        return true if taken == :wait_writable

        @waiting = @waiting.byteslice(taken..)
      end
      true
    rescue SystemCallError, IOError
      false
    end
  end

  def initialize
    @tabs = Hash.new { |all, id| all[id] = [] }
    @lock = Mutex.new
    @wake = Queue.new
  end

  # @param song_id [Integer, String]
  # @param socket [IO]
  # @param standing [Hash] how things are, told at once
  def add(song_id, socket, standing)
    tab = Tab.new(socket)
    return tab.close unless tab.send(HEAD + event("standing", standing))

    @lock.synchronize { @tabs[song_id] << tab }
    start_rounds
  end

  # @param name [String] of the event
  # @param data [Hash] what it tells, `tab` in it the tab that knows of it already
  def tell(song_id, name, data)
    tabs = @lock.synchronize { @tabs.key?(song_id) ? @tabs[song_id].dup : [] }
    return if tabs.empty?

    text = event(name, data)
    drop(tabs.reject { |tab| tab.send(text) })
    @wake << true if tabs.any?(&:waiting?)
  end

  # @return [Boolean] whether anybody listens
  def any?(song_id) = @lock.synchronize { @tabs.key?(song_id) && @tabs[song_id].any? }

  private

  def event(name, data) = "event: #{name}\ndata: #{JSON.generate(data)}\n\n"

  def all = @lock.synchronize { @tabs.values.flatten }

  # One thread sends heartbeats, one what tabs were not ready for.
  def start_rounds
    @lock.synchronize do
      @heartbeat ||= Thread.new { loop { sleep(HEARTBEAT_SECONDS) && drop(all.reject { |tab| tab.send(": still here\n\n") }) } }
      @pushing ||= Thread.new { loop { push_waiting } }
    end
  end

  def push_waiting
    waiting = all.select(&:waiting?)
    return @wake.pop if waiting.empty?

    _, ready, = IO.select(nil, waiting.map(&:socket), nil, 1)
    drop(waiting.select { |tab| ready&.include?(tab.socket) }.reject(&:push))
  rescue IOError
    drop(waiting.select { |tab| tab.socket.closed? })
  end

  def drop(gone)
    return if gone.empty?

    @lock.synchronize do
      @tabs.each_value { |list| list.reject! { |tab| gone.include?(tab) } }
      @tabs.delete_if { |_, list| list.empty? }
    end
    gone.each(&:close)
  end
end
