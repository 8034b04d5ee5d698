# frozen_string_literal: true

require_relative "rounds"

# Open tabs that want to know when a song changes: server-sent events over sockets taken over from the web server, so
# that a waiting tab costs no thread. Who tells something only lays it down; the rounds write it.
class Listeners < Rounds
  HEAD = "HTTP/1.1 200 OK\r\nContent-Type: text/event-stream\r\nCache-Control: no-store\r\nConnection: " \
         "close\r\n\r\nretry: 1000\n\n"
  HEARTBEAT_SECONDS = 15
  # What may wait for a tab that does not read, in bytes; more, and it is let go.
  MOST_WAITING = 4 * 1024 * 1024

  # One tab, by what it listens to.
  Tab = Struct.new(:outlet, :about, :key)

  def initialize(**)
    super
    @tabs = Hash.new { |all, about| all[about] = [] }
    @lock = Mutex.new
    @beat_at = Outlet.now
  end

  # @param about [Integer, String] a song, or a piece of long work
  # @param socket [IO]
  # @param snapshot [Hash] how things are, told at once
  # @param key [Integer, nil] the key of the device; nil for this machine
  def add(about, socket, snapshot, key: nil)
    tab = Tab.new(Outlet.of(socket, most: MOST_WAITING), about, key)
    tab.outlet.put(HEAD + event("snapshot", snapshot))
    @lock.synchronize { @tabs[about] << tab }
    add_client(tab)
  end

  # @param name [String] of the event
  # @param data [Hash] what it tells, `tab` in it the tab that knows of it already
  def tell(about, name, data)
    tabs = @lock.synchronize { @tabs.key?(about) ? @tabs[about].dup : [] }
    return if tabs.empty?

    text = event(name, data)
    tabs.each { |tab| tab.outlet.put(text) }
    wake
  end

  # @return [Boolean] whether anybody listens
  def any?(about) = @lock.synchronize { @tabs.key?(about) && @tabs[about].any? }

  protected

  def left(tab)
    @lock.synchronize do
      @tabs[tab.about].delete_if { |other| other.equal?(tab) }
      @tabs.delete(tab.about) if @tabs[tab.about].empty?
    end
  end

  def between
    return if Outlet.now - @beat_at < HEARTBEAT_SECONDS

    @beat_at = Outlet.now
    clients.each { |tab| tab.outlet.put(": still here\n\n") }
  end

  private

  def event(name, data) = "event: #{name}\ndata: #{JSON.generate(data)}\n\n"
end
