# frozen_string_literal: true

require "net/http"
require "openssl"
require "tmpdir"

# A server of its own in a folder of its own, with the demo song: one that can be killed and started again, or is open to TLS.
class SpawnedServer
  ROOT = File.expand_path("..", __dir__)

  attr_reader :port, :tls_port

  def initialize(folder, open: false)
    @port, @tls_port = Array.new(2) { TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] } }
    @environment = { "SATCHEL_DB" => File.join(folder, "songs.sqlite3"), "PORT" => @port.to_s, "RUBY_YJIT_ENABLE" => "1" }
    @environment.merge!("BIND" => "0.0.0.0", "TLS_PORT" => @tls_port.to_s) if open
  end

  def start
    @pid = spawn(@environment, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: ROOT, out: File::NULL, err: File::NULL)
    1800.times do
      return self if song
    rescue SystemCallError, IOError
      sleep 0.05
    end
    raise "the server did not start"
  end

  def stop(signal = "TERM")
    Process.kill(signal, @pid)
    Process.wait(@pid)
  end

  def memory_mb = File.read("/proc/#{@pid}/status")[/VmRSS:\s+(\d+)/, 1].to_i / 1024

  # @return [Hash, nil] the first song as it stands
  def song
    answer = Net::HTTP.get_response(URI("http://127.0.0.1:#{@port}/api/songs/1"))
    JSON.parse(answer.body) if answer.code == "200"
  end

  # @return [Net::HTTP] a connection that stays
  def http = Net::HTTP.start("127.0.0.1", @port, read_timeout: 60)

  # @return [Hash, nil] the answer to an edit; nil where there was none
  def self.edit(http, revision, name, inputs)
    answer = http.post("/api/songs/1/edits", JSON.generate({ revision:, edit: name, inputs: }), "Content-Type" => "application/json")
    answer.code == "200" ? JSON.parse(answer.body) : nil
  end
end
