# frozen_string_literal: true

require "io/wait"
require_relative "outlet"

# One thread that serves many clients over sockets taken over from the web server: it reads what came of each, writes
# what each takes, and lets go of those that left, do not read, or broke. A client that raises anything loses only
# itself.
#
# Subclasses say what is done: {#joined}, {#heard}, {#left}, {#between}. All of these run in that thread.
class Rounds
  # The longest between two rounds, in seconds.
  LONGEST_WAIT = 1
  # How often it is looked whether keys are still good.
  KEYS_SECONDS = 15

  # A client answers `outlet`, and `key`, the one of its device; nil for this machine.
  # @param good [#call] whether a key still is
  def initialize(good: ->(_) { true })
    @good = good
    @clients = []
    @joining, @withdrawn = Queue.new, Queue.new
    @looked_at = Outlet.now
    @wake_in, @wake_out = IO.pipe
    @starting = Mutex.new
  end

  # @return [Integer] how many are there
  def size = @clients.size

  # Lets go of the devices of a key.
  def withdraw(key)
    @withdrawn << key
    wake
  end

  protected

  # Takes a client in with the next round.
  def add_client(client)
    @joining << client
    start
    wake
  end

  # Has the next round begin now.
  def wake
    @wake_out.write_nonblock(".")
  rescue IO::WaitWritable
    nil
  end

  # @return [Array] those that are there
  attr_reader :clients

  # A client came. What is here already is read at once, as no socket may tell of it.
  def joined(client); end

  # @param text [String] what came of a client, maybe nothing
  def heard(client, text); end

  # A client has gone; it is no longer among {#clients}.
  def left(client); end

  # Between two rounds.
  def between; end

  # How long a round may wait at most, in seconds.
  def longest_wait = LONGEST_WAIT

  # Does something of a client; what it raises, it loses itself by.
  def guarded(client)
    yield
  rescue StandardError => e
    client.outlet.leave
    unless e.is_a?(SystemCallError) || e.is_a?(IOError)
      warn "#{self.class.name}: a client was let go (#{e.class}: #{e.message.to_s.scrub[0, 200]})"
    end
  end

  private

  # A thread that ended, whatever ended it, begins again with the next client.
  def start = @starting.synchronize { @thread = Thread.new { loop { round } } unless @thread&.alive? }

  def round
    ready, = wait
    @wake_in.read_nonblock(1024, exception: false) if ready.include?(@wake_in)
    join until @joining.empty?
    clients.each { |client| read(client) if ready.include?(client.outlet.to_io) }
    between
    keep_keys
    clients.each { |client| guarded(client) { client.outlet.push } if client.outlet.waiting? }
    drop
  end

  # @return [Array<Array<IO>>] what can be read, and what takes something
  def wait
    waiting = clients.select { |client| client.outlet.waiting? }
    IO.select([@wake_in, *ios(clients)], ios(waiting), nil, longest_wait) || [[], []]
  rescue IOError, SystemCallError
    clients.each { |client| client.outlet.leave unless usable?(client) }
    drop
    [[], []]
  end

  def ios(clients) = clients.map { |client| client.outlet.to_io }

  # Somebody else may have closed it.
  def usable?(client)
    client.outlet.to_io.wait_readable(0)
    true
  rescue IOError, SystemCallError
    false
  end

  def join
    client = @joining.pop
    @clients << client
    guarded(client) { client.key && !@good.call(client.key) ? client.outlet.leave : joined(client) }
    read(client)
  end

  # Without a key, or with one that is too old, nobody stays.
  def keep_keys
    bad = Array.new(@withdrawn.size) { @withdrawn.pop }
    if Outlet.now - @looked_at > KEYS_SECONDS
      @looked_at = Outlet.now
      bad |= clients.filter_map(&:key).uniq.reject { |key| @good.call(key) }
    end
    clients.each { |client| client.outlet.leave if bad.include?(client.key) } if bad.any?
  rescue StandardError => e
    # Those that were withdrawn are looked for again with the next round.
    bad&.each { |key| @withdrawn << key }
    warn "#{self.class.name}: keys could not be looked at (#{e.class}: #{e.message.to_s.scrub[0, 200]})"
  end

  def read(client) = guarded(client) { heard(client, client.outlet.read) }

  def drop
    gone = @clients.select { |client| client.outlet.gone? || client.outlet.stuck? }
    return if gone.empty?

    @clients -= gone
    gone.each do |client|
      guarded(client) { left(client) }
      guarded(client) { client.outlet.close }
    end
  end
end
