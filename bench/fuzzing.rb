# frozen_string_literal: true

require_relative "hostile_files"

# Requests and files changed at random, sent to the real server on the loopback address: how many of them are answered by a fault of ours,
# how many hang, and what the server holds afterwards. How many requests: FUZZ=COUNT; a twentieth of that of each kind of file.
class Fuzzing
  COUNT = ENV.fetch("FUZZ", "4000").to_i
  # An answer that takes longer counts as one that hangs.
  LONGEST_SECONDS = 20
  NASTY = ["", "%00", "-1", "9" * 40, "1e999", "[]", "a/b", "..%2F..", "%F0%9F%8E%B5", "x" * 3000, "null", "true", "0.5", "3840"].freeze
  VALUES = [nil, true, -1, 0, 0.5, 10**30, "", "\0", "x" * 3000, [], {}, [[]], { "a" => [] }, "rope-bass/synth/cutoff", "mooring"].freeze
  # These hold a connection open, or take away what the others need.
  LEFT_OUT = %r{/events|/hands|/offline|\ADELETE /api/(bin|songs/:id\z)}

  def initialize(server, seed = 1)
    @server = server
    @random = Random.new(seed)
  end

  # @return [Hash]
  def requests(count = COUNT)
    routes = Rights::TABLE.keys.grep_v(LEFT_OUT)
    tallied(count) { request(routes.sample(random: @random)) }
  end

  # @yieldparam name [String] of a kind of file
  # @yieldparam found [Hash]
  def files
    FILES.each do |name, (path, type, make)|
      changed = name == "documents" ? ->(text) { rewritten(text) } : ->(bytes) { mutated(bytes) }
      yield name, tallied(COUNT / 20) { [Net::HTTP::Post, path, changed.call(whole(make)), type] }
    end
  end

  # @return [Integer] megabytes the server holds
  def memory = @server.memory_mb

  FILES = {
    "WAV" => ["/api/sounds?name=x", "audio/wav", -> { HostileFiles.wave(channels: 1, said: 4000, megabytes: 0) + ("\1\2".b * 2000) }],
    "MIDI" => ["/api/midi?name=x", "audio/midi", -> { HostileFiles.midi(60) }],
    "packs" => ["/api/songs/import_packed", "application/zip", -> { pack }],
    "documents" => ["/api/songs/import", "application/json", -> { JSON.generate(KindSatchel::Document.dump(StarterSong.build("Fuzz"))) }]
  }.freeze

  def self.pack
    Zip::OutputStream.write_buffer do |zip|
      zip.put_next_entry(PackedSong::DOCUMENT)
      zip.write(JSON.generate(KindSatchel::Document.dump(StarterSong.empty("Fuzz"))))
    end.string
  end

  private

  def whole(make) = (@whole ||= {})[make] ||= make.call

  # Some bytes are others, or it is cut off; most of it stays.
  def mutated(bytes)
    text = bytes.dup.b
    (1 + @random.rand(6)).times { text.setbyte(@random.rand(@random.rand(2).zero? ? [64, text.bytesize].min : text.bytesize), @random.rand(256)) }
    @random.rand(5).zero? ? text[0, @random.rand(text.bytesize)] : text
  end

  # A document in which some values are others.
  def rewritten(text)
    record = JSON.parse(text)
    (1 + @random.rand(3)).times { put_somewhere(record) }
    @random.rand(8).zero? ? mutated(JSON.generate(record)) : JSON.generate(record)
  end

  def put_somewhere(record)
    key = record.is_a?(Array) ? @random.rand([record.size, 1].max) : record.keys.sample(random: @random)
    deeper = record[key]
    return put_somewhere(deeper) if (deeper.is_a?(Hash) || deeper.is_a?(Array)) && deeper.any? && @random.rand(6).positive?

    record[key] = value if key
  end

  # One of its own, since it is changed later.
  def value = Marshal.load(Marshal.dump(VALUES.sample(random: @random)))

  def request(route)
    verb, pattern = route.split
    path = pattern.gsub(/:\w+|\*/) { @random.rand(3).zero? ? NASTY.sample(random: @random) : @server.demo_id.to_s }.delete("?")
    names = Parameters::ADDRESS.keys.sample(@random.rand(5), random: @random)
    query = names.map { |name| "#{name}=#{NASTY.sample(random: @random)}" }.join("&")
    body = Parameters::BODY.keys.sample(@random.rand(6), random: @random).to_h { |name| [name, VALUES.sample(random: @random)] }
    body.merge!("revision" => 1, "edit" => KindSatchel::Edits::NAMES.sample(random: @random), "inputs" => inputs) if @random.rand(2).zero?
    [{ "GET" => Net::HTTP::Get, "POST" => Net::HTTP::Post, "DELETE" => Net::HTTP::Delete }.fetch(verb), "#{path}?#{query}", JSON.generate(body),
     "application/json"]
  end

  def inputs = %w[envelope_id address clip_id track_id points value tick runs].sample(3, random: @random).to_h { |name| [name, VALUES.sample(random: @random)] }

  def tallied(count)
    start = Measure.now
    statuses, hangs, broken = Hash.new(0), 0, Hash.new(0)
    count.times do
      wish = yield
      status = sent(*wish)
      status ? statuses[status[0]] += 1 : hangs += 1
      broken[wish[1][/[^?]*/][0, 80]] += 1 if status.nil? || status.start_with?("5")
    end
    answers = statuses.sort.map { |kind, number| "#{number} x #{kind}xx" }.join(", ")
    { "sent" => count, "answers" => answers, "hangs" => hangs, "seconds" => (Measure.now - start).round, "broken" => broken.max_by(9, &:last) }
  end

  # @return [String, nil] the status
  def sent(kind, path, body, type)
    asking = kind.new(path, "Content-Type" => type)
    asking.body = body if kind::REQUEST_HAS_BODY || body
    connection.request(asking).code
  rescue Net::ReadTimeout
    @connection = nil
  rescue URI::InvalidURIError, ArgumentError
    "400"
  rescue SystemCallError, IOError
    @connection = nil
    "400"
  end

  def connection
    @connection ||= Net::HTTP.new("127.0.0.1", @server.port).tap { |http| http.read_timeout = LONGEST_SECONDS }.start
  end
end
