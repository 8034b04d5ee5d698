# frozen_string_literal: true

require_relative "spawned_server"

# What others do to those who work: a server killed in a storm of edits, listeners that do not read, long requests at once.
module Company
  KILLS = ENV.fetch("KILLS", "20").to_i
  LISTENERS = 64
  EDITS = 300
  LONG = 8

  module_function

  # Kills the server again and again while one edit follows another; what was answered must be there afterwards.
  # @return [Hash] how many edits were answered, and how many of them are lost
  def kills(random = Random.new(5))
    Dir.mktmpdir do |folder|
      server = SpawnedServer.new(folder).start
      found = { "kills" => KILLS, "answered" => 0, "lost" => 0, "differ" => 0 }
      KILLS.times { killed(server, random.rand(0.05..0.8), found) }
      found
    ensure
      server&.stop
    end
  end

  def killed(server, seconds, found)
    revision, names, ends = server.song["revision"], {}, nil
    storm(server, revision) do |now, name|
      names[now] = name
      ends ||= Thread.new { sleep(seconds) && server.stop("KILL") }
    end
    ends.join
    found["answered"] += names.size
    stands = server.start.song
    last = names.keys.max or return
    found["lost"] += [last - stands["revision"], 0].max
    name = stands["parts"].find { |kind,| kind == "song" }.last.fetch("name")
    found["differ"] += 1 if stands["revision"] == last && name != names[last]
  end

  # One edit after the other until nobody answers any more.
  def storm(server, revision)
    http = server.http
    loop do
      name = "Take #{revision}"
      answer = SpawnedServer.edit(http, revision, "rename_song", { name: }) or break
      yield revision = answer["revision"], name
    end
  rescue SystemCallError, IOError, Timeout::Error
    nil
  end

  # Edits while as many listen as may, half of them by TLS, half of all without ever reading; beside edits before and after.
  def listeners
    Dir.mktmpdir do |folder|
      server = SpawnedServer.new(folder, open: true).start
      @revision = server.song["revision"]
      edits(server)
      before = edits(server)
      company = fork { listen(server) }
      sleep 3
      beside = edits(server)
      Process.kill("KILL", company)
      Process.wait(company)
      after = edits(server)
      alone = [before, after].map { |one| one["p95_ms"] }.sum / 2
      { "p95 alone" => alone.round(1), "p95 beside them" => beside["p95_ms"], "ratio" => (beside["p95_ms"] / alone).round(2),
        "median ratio" => (beside["median_ms"] * 2 / (before["median_ms"] + after["median_ms"])).round(2) }
    ensure
      server.stop
    end
  end

  def edits(server)
    http = server.http
    Measure.milliseconds(EDITS, warm_up: 20) do
      inputs = { address: "rope-bass/synth/cutoff", value: (@revision % 90 / 100.0) + 0.05 }
      @revision = SpawnedServer.edit(http, @revision, "set_knob", inputs)["revision"]
    end
  end

  # Every second one by TLS, every second pair never reads.
  def listen(server)
    sockets = Array.new(LISTENERS) do |i|
      socket = TCPSocket.new("127.0.0.1", i.odd? ? server.tls_port : server.port)
      socket = OpenSSL::SSL::SSLSocket.new(socket).tap(&:connect) if i.odd?
      socket.write("GET /api/songs/1/events HTTP/1.1\r\nHost: 127.0.0.1\r\n\r\n")
      socket
    end
    reading = sockets.each_slice(4).flat_map { |four| four.first(2) }
    reading.map { |socket| Thread.new { loop { socket.readpartial(16_384) } } }.each(&:join)
  end

  # Previews while as many long requests as given are asked for at once, beside previews alone.
  # @yieldparam runs [Integer]
  # @yieldreturn [Hash] how long previews took
  def long_requests(server)
    alone = yield 200
    path = "/api/songs/#{server.big_id}/offline?block_ticks=15360"
    asking = Array.new(LONG) do
      Thread.new { Net::HTTP.start("127.0.0.1", server.port, read_timeout: 600) { |http| http.get(path).code } }
    end
    sleep 1
    beside = yield 200
    { "p95 alone" => alone["p95_ms"], "p95 beside them" => beside["p95_ms"], "median beside them" => beside["median_ms"],
      "still at work" => asking.count(&:alive?), "answers" => asking.map(&:value).tally.map { |code, count| "#{count} x #{code}" }.join(", ") }
  end
  private_class_method :killed, :storm, :edits, :listen
end
