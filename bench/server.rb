# frozen_string_literal: true

require "net/http"

# The real server on a database of its own, on a free port, with the demo and the big song on its shelf.
class BenchServer
  ROOT = File.expand_path("..", __dir__)
  # Of its own, as two may run at a time.
  DATABASE = File.join(ROOT, "tmp/bench#{Process.pid}.sqlite3")

  attr_reader :port, :demo_id, :big_id, :long_id, :drone_id, :faders_id, :wide_id, :notes_id, :empty_id, :wobble_id, :macros_id, :pid

  def initialize(big)
    FileUtils.mkdir_p(File.dirname(DATABASE))
    FileUtils.rm_f(Dir["#{DATABASE}*"])
    Database.connect(DATABASE, alone: false)
    @demo_id = Server.shelf.add(DemoSong.build)["id"]
    @big_id = Server.shelf.add(big)["id"]
    @long_id = Server.shelf.add(EditorBench.song(2000))["id"]
    @drone_id = Server.shelf.add(drone)["id"]
    @faders_id = Server.shelf.add(faders)["id"]
    @wide_id = Server.shelf.add(wide)["id"]
    @wobble_id = Server.shelf.add(MovingBench.wobble)["id"]
    @macros_id = Server.shelf.add(MovingBench.macros)["id"]
    @empty_id = Server.shelf.add(empty)["id"]
    @notes_id = Server.shelf.add(FilesBench.notes)["id"]
    @port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }
    env = { "SATCHEL_DB" => DATABASE, "PORT" => @port.to_s, "RUBY_YJIT_ENABLE" => "1" }
    @pid = spawn(env, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: ROOT, out: File::NULL, err: File::NULL)
    wait
  end

  def stop
    Process.kill("TERM", @pid)
    Process.wait(@pid)
    FileUtils.rm_rf(Dir["#{DATABASE}*"])
  end

  def get(path) = http.get(path).body
  def post(path, data) = send_text(path, JSON.generate(data))
  def send_text(path, text) = http.post(path, text, "Content-Type" => "application/json").body

  # @return [String] the status of the answer to a file
  def status_of(path, bytes, type) = http.post(path, bytes, "Content-Type" => type).code

  def send_file(path, bytes, type) = http.post(path, bytes, "Content-Type" => type).body

  # What the server holds now, and not what it once held.
  def memory_mb = File.read("/proc/#{@pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024

  private

  # One chord over many bars.
  def drone
    writer = SongWriter.new(name: "Drone", bpm: 120, range: [0, 64 * 3840])
    writer.track "drone", "Drone", "notes", "madder", devices: { "synth" => ["pad-synth", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "chord", "Chord", 64, notes: [48, 55, 60].map { |pitch| KindSatchel::Note.new(tick: 0, length_ticks: 64 * 3840, pitch:, velocity: 120) }
    writer.region "drone", "chord", 1, 64
    writer.song
  end

  # One instrument, and nothing for it to play.
  def empty
    writer = SongWriter.new(name: "Empty", bpm: 120, range: [0, 3840])
    writer.track "keys", "Keys in", "notes", "madder", devices: { "synth" => ["pluck", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.song.then { |song| song.with(range: song.range.with(on: false)) }
  end

  # The demo, all its faders moving.
  def faders
    demo = DemoSong.build
    demo.tracks.reject { |track| track.kind == "carrier" || track.lanes.any? { |lane| lane.target.parameter_id == "volume" } }.reduce(demo) do |song, track|
      address = "#{track.id}/channel/volume"
      song = KindSatchel::Edits.apply(song, "add_lane", { "address" => address }).song
      lane = song.track(track.id).lanes.last
      points = (0..64).map { |i| { "tick" => i * 1920, "value" => i.odd? ? 0.7 : 0.5, "shape" => "straight" } }
      KindSatchel::Edits::Envelopes.change(song, lane.id) { |one| one.with(points: points.map { |point| KindSatchel::Records.read_point(point) }) }
    end
  end

  # 64 tracks with 400 devices.
  def wide
    writer = SongWriter.new(name: "Wide", bpm: 120, range: [0, 4 * 3840])
    effects = %w[filter drive equaliser compressor delay chorus]
    61.times do |t|
      chain = effects.first(t < 34 ? 5 : 4).each_with_index.to_h { |type, i| ["e#{i}", [type, {}]] }
      writer.track "t#{t}", "Track #{t + 1}", "notes", KindSatchel::Track::HUES[t % 6], devices: { "synth" => ["mono-synth", {}], **chain }
      writer.clip "c#{t}", "Clip #{t + 1}", 1, notes: [KindSatchel::Note.new(tick: 0, length_ticks: 480, pitch: 48, velocity: 90)]
      writer.region "t#{t}", "c#{t}", 1, 4
      writer.move "c#{t}", "t#{t}/e0/cutoff", "set", [[0, "400 Hz", :straight], [4, "4 kHz", :hold]]
    end
    %w[hall pier].each { |id| writer.track id, id.capitalize, "return", "lichen", devices: { "reverb" => ["reverb", {}] } }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.song
  end

  def http = @http ||= Net::HTTP.start("127.0.0.1", @port, read_timeout: 120)

  def wait
    200.times do
      return TCPSocket.new("127.0.0.1", @port).close
    rescue SystemCallError
      sleep 0.1
    end
    raise "the server did not start"
  end
end
