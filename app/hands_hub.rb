# frozen_string_literal: true

require "websocket/driver"

# Hands at a distance: surfaces on other devices, and the studios that play. What one says goes on to the others of its song, over one
# websocket each; nothing of it is stored, and none of it is an edit. One thread serves all of them, on sockets taken over from the
# web server.
class HandsHub
  ROLES = %w[studio surface].freeze
  # The longest message, in bytes: what a studio of hundreds of tracks tells of itself.
  LONGEST = 256 * 1024
  # So many messages a second are passed on from one client; more are dropped.
  MOST_A_SECOND = 500
  # What may wait for a client that does not read; more, and it is let go.
  MOST_WAITING = 512 * 1024
  READ = 16 * 1024

  # One websocket. Answers to what the driver asks of its socket.
  class Client
    attr_reader :env, :url, :socket, :id, :song_id, :role, :key, :name, :driver

    # @param key [Integer, nil] the key of the device; nil for this machine
    def initialize(env, socket, song_id, role, name, key)
      @env, @socket, @song_id, @role, @name, @key = env, socket, song_id, role, name, key
      @id = SecureRandom.hex(4)
      @url = "ws://#{env['HTTP_HOST']}#{env['REQUEST_URI']}"
      @waiting = +""
      @count, @second = 0, 0
      @gone = false
      @driver = WebSocket::Driver.rack(self, max_length: LONGEST)
    end

    def write(data) = @waiting << data.b
    def say(text) = @driver.text(text)
    def waiting? = !@waiting.empty?
    def gone? = @gone || @waiting.bytesize > MOST_WAITING
    def to_io = @socket.to_io

    # Whether one more message is passed on.
    def allowed?
      second = Process.clock_gettime(Process::CLOCK_MONOTONIC).to_i
      @count, @second = 0, second if second != @second
      (@count += 1) <= MOST_A_SECOND
    end

    def read
      loop do
        data = @socket.read_nonblock(READ, exception: false)
        return if data.is_a?(Symbol)
        return leave if data.nil?

        @driver.parse(data)
      end
    rescue IO::WaitReadable, IO::WaitWritable
      nil
    rescue SystemCallError, IOError, OpenSSL::SSL::SSLError
      leave
    end

    def push
      until @waiting.empty?
        taken = @socket.write_nonblock(@waiting, exception: false)
        return if taken == :wait_writable

        @waiting = @waiting.byteslice(taken..)
      end
    rescue IO::WaitWritable
      nil
    rescue SystemCallError, IOError, OpenSSL::SSL::SSLError
      leave
    end

    def leave = @gone = true
    def close = (@socket.close unless @socket.closed?)
  end

  def initialize
    @clients = []
    @joining = Queue.new
    @withdrawn = Queue.new
    @wake_in, @wake_out = IO.pipe
    @lock = Mutex.new
  end

  # Takes a request over.
  # @param role [String] one of {ROLES}
  def add(env, song_id, role, name, key)
    @joining << Client.new(env, env["rack.hijack"].call, song_id, role, name, key)
    start
    wake
  end

  # Lets go of the devices of a key.
  def withdraw(key)
    @withdrawn << key
    wake
  end

  # @return [Integer] how many are there
  def size = @clients.size

  private

  def start = @lock.synchronize { @thread ||= Thread.new { loop { round } } }

  def wake
    @wake_out.write_nonblock(".")
  rescue IO::WaitWritable
    nil
  end

  def round
    readable, writable, = IO.select([@wake_in, *@clients], @clients.select(&:waiting?), nil, 10)
    @wake_in.read_nonblock(1024, exception: false) if readable&.include?(@wake_in)
    join until @joining.empty?
    (readable || []).each { |client| client.read if client.is_a?(Client) }
    (writable || []).each(&:push)
    @clients.each { |client| client.push if client.waiting? }
    drop
  rescue StandardError => e
    warn "hands: #{e.class}: #{e.message}"
    @clients.each { |client| client.leave if client.socket.closed? }
  end

  def join
    client = @joining.pop
    client.driver.on(:message) { |event| pass_on(client, event.data) }
    client.driver.on(:close) { client.leave }
    client.driver.on(:open) { greet(client) }
    client.driver.start
    @clients << client
  end

  def greet(client)
    client.say(JSON.generate("t" => "hello", "id" => client.id, "studios" => others(client, "studio").size))
    others(client).each { |other| other.say(came(client)) }
    others(client, "surface").each { |surface| client.say(came(surface)) } if client.role == "studio"
  end

  def came(client) = JSON.generate("t" => "came", "from" => client.id, "role" => client.role, "name" => client.name)

  # A song may be open twice; the studio that came last has the hands.
  def leading(song_id) = @clients.reverse_each.find { |client| client.role == "studio" && client.song_id == song_id }

  # From a surface to the studio that leads; from that studio to one surface, or to all.
  def pass_on(client, text)
    return unless text.is_a?(String) && client.allowed?

    data = JSON.parse(text, max_nesting: 8)
    return unless data.is_a?(Hash) && data["t"].is_a?(String)

    to = data.delete("to")
    told = JSON.generate(data.merge("from" => client.id))
    return leading(client.song_id)&.say(told) if client.role == "surface"
    return unless client.equal?(leading(client.song_id))

    others(client, "surface").each { |other| other.say(told) if to.nil? || other.id == to }
  rescue JSON::ParserError
    nil
  end

  def others(client, role = nil)
    @clients.select { |other| !other.equal?(client) && other.song_id == client.song_id && (role.nil? || other.role == role) }
  end

  def drop
    withdrawn = Array.new(@withdrawn.size) { @withdrawn.pop }
    gone = @clients.select { |client| client.gone? || (client.key && withdrawn.include?(client.key)) }
    return if gone.empty?

    @clients -= gone
    gone.each do |client|
      others(client).each { |other| other.say(JSON.generate("t" => "gone", "from" => client.id, "role" => client.role, "name" => client.name)) }
      client.close
    end
  end
end
