# frozen_string_literal: true

require "websocket/driver"
require_relative "rounds"

# Hands at a distance: surfaces on other devices, and the studios that play. What one says goes on to the others of
# its song, over one websocket each; nothing of it is stored, and none of it is an edit.
class HandsHub < Rounds
  ROLES = %w[studio surface].freeze
  # The longest message, in bytes: what a studio of hundreds of tracks tells of itself.
  LONGEST = 256 * 1024
  # So many messages a second are passed on from one client; of more only the newest are, in the next second.
  MOST_A_SECOND = 500
  # So many of those.
  MOST_LATE = 64
  # What may wait for a client, in bytes.
  MOST_WAITING = 512 * 1024
  LATE_WAIT = 0.05

  # One websocket. Answers to what the driver asks of its socket.
  class Client
    attr_reader :env, :url, :outlet, :id, :song_id, :role, :key, :name, :driver

    # @param key [Integer, nil] the key of the device; nil for this machine
    def initialize(env, socket, song_id, role, name:, key:)
      @env, @song_id, @role, @name, @key = env, song_id, role, name, key
      @outlet = Outlet.of(socket, most: MOST_WAITING)
      @id = SecureRandom.hex(4)
      @url = "ws://#{env['HTTP_HOST']}#{env['REQUEST_URI']}"
      @count, @second = 0, 0
      @late = []
      @driver = WebSocket::Driver.rack(self, max_length: LONGEST)
    end

    # Called by the driver: bytes go into the client's queue, never straight to its socket.
    def write(data) = @outlet.put(data)

    # @param text [String] a message for this client
    def say(text) = @driver.text(text)
    def late? = @late.any?

    # Whether one more message is passed on in this second.
    def allowed?
      second = Outlet.now.to_i
      @count, @second = 0, second if second != @second
      (@count += 1) <= MOST_A_SECOND
    end

    # Keeps a message for the next second, the oldest of too many dropped.
    def keep(text)
      @late << text
      @late.shift if @late.size > MOST_LATE
    end

    # @yieldparam text [String] those that are passed on now
    def each_late
      yield @late.shift while late? && (Outlet.now.to_i != @second || @count < MOST_A_SECOND) && allowed?
    end
  end

  # Takes a request over.
  # @param role [String] one of {ROLES}
  def add(env, song_id, role, name, key)
    add_client(Client.new(env, env["rack.hijack"].call, song_id, role, name:, key:))
  end

  protected

  def joined(client)
    client.driver.on(:message) { |event| hear(client, event.data) }
    client.driver.on(:close) { client.outlet.leave }
    client.driver.on(:open) { greet(client) }
    client.driver.start
  end

  def heard(client, text) = (client.driver.parse(text) unless text.empty?)

  def left(client)
    tell(others(client),
         JSON.generate("t" => "gone", "from" => client.id, "role" => client.role, "name" => client.name))
  end

  def between
    clients.each { |client| guarded(client) { client.each_late { |text| pass_on(client, text) } } if client.late? }
  end

  def longest_wait = clients.any?(&:late?) ? LATE_WAIT : LONGEST_WAIT

  private

  def greet(client)
    client.say(JSON.generate("t" => "hello", "id" => client.id, "studios" => others(client, "studio").size))
    tell(others(client), came(client))
    others(client, "surface").each { |surface| client.say(came(surface)) } if client.role == "studio"
  end

  def came(client) = JSON.generate("t" => "came", "from" => client.id, "role" => client.role, "name" => client.name)

  # A song may be open twice; the studio that came last has the hands.
  def leading(song_id) = clients.reverse_each.find { |client| client.role == "studio" && client.song_id == song_id }

  # Too many in a second are not even looked at.
  def hear(client, text)
    return unless text.is_a?(String)

    client.late? || !client.allowed? ? client.keep(text) : pass_on(client, text)
  end

  # From a surface to the studio that leads; from that studio to one surface, or to all.
  def pass_on(client, text)
    data = JSON.parse(text, max_nesting: 8)
    return unless data.is_a?(Hash) && data["t"].is_a?(String)

    to = data.delete("to")
    message = JSON.generate(data.merge("from" => client.id))
    return tell([*leading(client.song_id)], message) if client.role == "surface"
    return unless client.equal?(leading(client.song_id))

    tell(others(client, "surface").select { |other| to.nil? || other.id == to }, message)
  rescue JSON::ParserError
    nil
  end

  # Who cannot be told is lost, not who tells.
  def tell(listeners, text) = listeners.each { |other| guarded(other) { other.say(text) } }

  def others(client, role = nil)
    clients.select do |other|
      !other.equal?(client) && other.song_id == client.song_id && (role.nil? || other.role == role)
    end
  end
end
