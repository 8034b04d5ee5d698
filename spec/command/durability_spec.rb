# frozen_string_literal: true

require "net/http"
require "socket"
require "sqlite3"

RSpec.describe "A server that is killed" do
  root = File.expand_path("../..", __dir__)

  # Whether it serves its first song already.
  def answers?(port)
    Net::HTTP.get_response(URI("http://127.0.0.1:#{port}/api/songs/1")).code == "200"
  rescue SystemCallError
    false
  end

  it "has kept every edit that it answered, and its undo" do
    Dir.mktmpdir do |folder|
      database = File.join(folder, "songs.sqlite3")
      port = TCPServer.open("127.0.0.1", 0) { |socket| socket.addr[1] }
      pid = spawn({ "SATCHEL_DB" => database, "PORT" => port.to_s }, "bundle", "exec", "puma", "-C", "config/puma.rb", chdir: root, out: File::NULL, err: File::NULL)
      300.times { answers?(port) ? break : sleep(0.1) }
      answers = Array.new(5) do |i|
        edit = { revision: i + 1, edit: "rename_song", inputs: { name: "Take #{i}" } }
        Net::HTTP.post(URI("http://127.0.0.1:#{port}/api/songs/1/edits"), JSON.generate(edit), "Content-Type" => "application/json").code
      end
      Process.kill("KILL", pid)
      Process.wait(pid)
      rows = SQLite3::Database.new(database)
      expect(answers).to eq ["200"] * 5
      expect(rows.execute("SELECT name, revision, done_edits FROM songs")).to eq [["Take 4", 6, 5]]
      expect(rows.execute("SELECT words FROM edits ORDER BY place").flatten).to eq(Array.new(5) { |i| "rename the song to Take #{i}" })
    end
  end
end
