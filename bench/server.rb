# frozen_string_literal: true

require "net/http"

# The real server on a database of its own, on a free port, with the demo and the big song on its shelf.
class BenchServer
  ROOT = File.expand_path("..", __dir__)
  DATABASE = File.join(ROOT, "tmp/bench.sqlite3")

  attr_reader :port, :demo_id, :big_id, :long_id, :drone_id

  def initialize(big)
    FileUtils.mkdir_p(File.dirname(DATABASE))
    FileUtils.rm_f(Dir["#{DATABASE}*"])
    Database.connect(DATABASE, alone: false)
    @demo_id = Server.shelf.add(DemoSong.build)["id"]
    @big_id = Server.shelf.add(big)["id"]
    @long_id = Server.shelf.add(EditorBench.song(2000))["id"]
    @drone_id = Server.shelf.add(drone)["id"]
    @port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }
    env = { "SATCHEL_DB" => DATABASE, "PORT" => @port.to_s, "RUBY_YJIT_ENABLE" => "1" }
    @pid = spawn(env, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: ROOT, out: File::NULL, err: File::NULL)
    wait
  end

  def stop
    Process.kill("TERM", @pid)
    Process.wait(@pid)
  end

  def get(path) = http.get(path).body
  def post(path, data) = http.post(path, JSON.generate(data), "Content-Type" => "application/json").body

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
