# frozen_string_literal: true

require "net/http"
require "open3"
require "socket"
require "sqlite3"

RSpec.describe "Starting the server" do
  root = File.expand_path("../..", __dir__)
  define_method(:root) { root }

  around { |example| Dir.mktmpdir { |folder| (@folder = folder) && example.run } }

  def free_port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }

  # @return [Array(Array<String>, Integer)] what it complained of, and its exit status
  def start(database, port = free_port)
    _, said, status = Open3.capture3({ "SATCHEL_DB" => database, "PORT" => port.to_s }, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: root)
    [said.lines.map(&:chomp), status.exitstatus]
  end

  def database = File.join(@folder, "songs.sqlite3")

  it "refuses a port that is taken, a file another server uses, one that is damaged, newer, or cannot be made: one sentence, exit 1", :long do
    TCPServer.open("127.0.0.1", 0) do |taken|
      port = taken.addr[1]
      expect(start(database, port)).to eq [["Port #{port} of 127.0.0.1 is taken; stop what uses it, or name another one in PORT."], 1]
    end
    File.open("#{database}.lock", "w") do |lock|
      lock.flock(File::LOCK_EX)
      expect(start(database)).to match [[a_string_starting_with("Another server already uses #{database}")], 1]
    end
    File.write(database, "this is no database, but it is long enough to be taken for one " * 40)
    expect(start(database)).to match [[a_string_including("cannot be used: The database file is damaged")], 1]
    File.delete(database)
    SQLite3::Database.new(database) do |rows|
      rows.execute("CREATE TABLE schema_migrations (version varchar NOT NULL PRIMARY KEY)")
      rows.execute("INSERT INTO schema_migrations VALUES ('999')")
    end
    expect(start(database)).to match [[a_string_including("made by a newer version")], 1]
    expect(start("/dev/null/songs.sqlite3")).to match [[a_string_starting_with("The folder of /dev/null/songs.sqlite3 cannot be written to")], 1]
  end

  it "reads its files as UTF-8 in a shell that names no language" do
    port = free_port
    env = { **ENV.slice("PATH", "HOME", "BUNDLE_PATH", "BUNDLE_GEMFILE"), "SATCHEL_DB" => database, "PORT" => port.to_s, "LC_ALL" => "C" }
    pid = spawn(env, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: root, unsetenv_others: true, out: File::NULL, err: File::NULL)
    answer = begin
      Net::HTTP.get_response(URI("http://127.0.0.1:#{port}/api/help"))
    rescue Errno::ECONNREFUSED
      sleep(0.1) && retry
    end
    expect([answer.code, JSON.parse(answer.body)]).to match ["200", be_a(Hash)]
  ensure
    Process.kill("TERM", pid)
    Process.wait(pid)
  end
end
