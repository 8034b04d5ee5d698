# frozen_string_literal: true

require "net/http"
require "open3"
require_relative "../../app/backup"
require_relative "../../app/command_line"

# Every program as it is met after `bin/demo` alone: from a shell that knows nothing but where programs are, and in another folder; once right,
# once wrong. What is right is told on standard output and by status 0, what is wrong in a sentence and by status 1.
RSpec.describe "From a plain shell" do
  bin = File.expand_path("../../bin", __dir__)
  cutoff = "rope-bass/synth/cutoff"

  before(:context) do
    AppHelpers.start
    @folder = Dir.mktmpdir
    File.write(at("song.json"), JSON.generate(KindSatchel::Document.dump(DemoSong.build)))
    File.write(at("other.json"), JSON.generate(KindSatchel::Document.dump(DemoSong.build.with(bpm: 100.0))))
    File.write(at("bare.json"), JSON.generate(KindSatchel::Document.dump(bare)))
    File.write(at("edits.json"), JSON.generate([{ "edit" => "rename_song", "inputs" => { "name" => "Ebb" } }]))
    File.write(at("packed.json"), JSON.generate("packed" => true, "document" => true))
    File.write(at("broken.json"), "{")
    # A database as the app has it, with the sounds that ship.
    Backup.write(AppHelpers::DATABASE, at("kept.zip"))
    Backup.restore(at("kept.zip"), at("satchel.sqlite3"))
  end

  after(:context) { FileUtils.rm_rf(@folder) }

  def at(name) = File.join(@folder, name)

  def bare
    writer = SongWriter.new(name: "Bare", bpm: 120, range: [0, 3840])
    writer.track "bass", "Bass", "notes", "madder", devices: { "synth" => ["mono-synth", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    writer.clip "line", "Line", 1, notes: [KindSatchel::Note.new(tick: 0, length_ticks: 480, pitch: 40, velocity: 100)]
    writer.region "bass", "line", 1, 1
    writer.song
  end

  def plain = { "PATH" => "/usr/local/bin:/usr/bin:/bin", "HOME" => "/root", "SATCHEL_DB" => at("satchel.sqlite3") }

  # @return [Array(String, String, Integer)] standard output, error output, status
  def run(*command, **more)
    out, err, status = Open3.capture3(plain.merge(more.fetch(:env, {})), *command, unsetenv_others: true, chdir: @folder)
    [out, err, status.exitstatus]
  end

  right = {
    "heard" => [["heard", "song.json", cutoff, "--from", "0", "--to", "960", "--step", "480"], /\Atick,normalised,natural\n0,/],
    "explain" => [["explain", "song.json", cutoff, "--at", "960"], /\ARope Bass, Cutoff at 1\.2\.0/],
    "flatten" => [["flatten", "song.json", cutoff], /\Aseconds,value\n/],
    "clock" => [%w[clock song.json --at 3840], /\A2\.6/],
    "params" => [%w[params song.json], /\Aaddress,scale/],
    "validate" => [%w[validate song.json], /\Avalid$/],
    "check" => [%w[check bare.json], /\A\z/],
    "edit" => [%w[edit song.json edits.json], /"name": "Ebb"/],
    "pack" => [%w[pack song.json made.zip], /\A\z/],
    "unpack" => [%w[unpack packed.zip], /"name": "Low Tide Market"/],
    "moves" => [%w[moves], /\Aname,tags,role,beats\n/],
    "hand-over" => [%w[hand-over song.json packed.json handed], /\A\z/],
    "compare" => [%w[compare song.json song.json], /\A\z/],
    "mixdown" => [%w[mixdown bare.json bare.wav], /\Apeak_db /],
    "demo" => [%w[demo], /"name": "Low Tide Market"/],
    "help" => [%w[--help], /^satchel mixdown/]
  }
  wrong = {
    "heard" => [["heard", "song.json", cutoff, "--from", "100", "--to", "50"], /--to lies before --from/],
    "explain" => [["explain", "song.json", cutoff], /--at is missing/],
    "flatten" => [%w[flatten song.json none/x/y], /none/],
    "clock" => [%w[clock none.json --at 1], /No such file/],
    "params" => [%w[params broken.json], /no JSON/],
    "validate" => [%w[validate broken.json], /no JSON/],
    "edit" => [%w[edit song.json song.json], /list of edits/],
    "pack" => [%w[pack song.json song.json], /there already/],
    "unpack" => [%w[unpack song.json], /./],
    "moves" => [%w[moves song.json], /./],
    "hand-over" => [%w[hand-over song.json broken.json nothing], /no JSON/],
    "mixdown" => [%w[mixdown broken.json out.wav], /no JSON/],
    "serve" => [%w[serve song.json], /--read-only is missing/],
    "help" => [%w[juggle], /There is no command juggle/]
  }

  it "knows every command" do
    expect(right.keys + ["serve"]).to match_array CommandLine::COMMANDS
    expect(wrong.keys + %w[check compare demo]).to match_array CommandLine::COMMANDS
  end

  right.each do |name, (arguments, wanted)|
    it "runs satchel #{name}" do
      run("#{bin}/satchel", "pack", "song.json", "packed.zip") if name == "unpack"
      out, err, status = run("#{bin}/satchel", *arguments)
      expect([status, out]).to match([0, wanted]), err
    end
  end

  wrong.each do |name, (arguments, wanted)|
    it "says what is wrong with satchel #{name}" do
      out, err, status = run("#{bin}/satchel", *arguments)
      expect([status, err, out]).to match [1, wanted, ""]
    end
  end

  it "says by its status that something differs, and that there are loose ends" do
    expect(run("#{bin}/satchel", "compare", "song.json", "other.json")).to match [/\ATempo: at most 8 BPM apart/, "", 1]
    expect(run("#{bin}/satchel", "check", "song.json")[2]).to eq 1
  end

  it "serves a song that is looked at" do
    told, said = IO.pipe
    pid = spawn(plain, "#{bin}/satchel", "serve", "--read-only", "song.json", out: said, err: said, unsetenv_others: true, chdir: @folder)
    said.close
    expect(Net::HTTP.get(URI(told.gets[%r{http://\S+/songs/\d+}]))).to include "<title>"
  ensure
    Process.kill("TERM", pid)
    Process.wait(pid)
  end

  it "writes a backup and puts it back, and says what is wrong with either" do
    expect(run("#{bin}/backup", "again.zip")).to match [/again\.zip: the database and \d+ sounds/, "", 0]
    expect(run("#{bin}/backup", "again.zip")).to match ["", /there already/, 1]
    goal = { "SATCHEL_DB" => at("restored.sqlite3") }
    expect(run("#{bin}/restore", "kept.zip", env: goal)).to match [/put back, with \d+ sounds/, "", 0]
    expect(run("#{bin}/restore", "song.json", env: goal)).to match ["", /./, 1]
  end

  it "takes a picture, and knows the others", :long do
    out, err, status = run("#{bin}/pictures", "songs", env: { "PICTURES" => at("pictures") })
    expect([status, out.chomp, File.binread(at("pictures/songs.png"))[1, 3]]).to eq([0, "songs", "PNG"]), err
    expect(run("#{bin}/pictures", "none")).to match ["", /There is no picture none; there are studio/, 1]
  end

  # The driver's log of the network is off: what is posted, tens of megabytes, does not go through it.
  long = ENV["SATCHEL_LONG"] ? { "the whole demo" => [[], 80] } : {}
  { "sixteen bars" => [["--from", "30720", "--to", "92160"], 40], **long }.each do |what, (stretch, seconds)|
    it "renders #{what}, and tells how far it is without repeating itself", :long do
      out, err, status = run("#{bin}/satchel", "mixdown", "song.json", "mix.wav", *stretch)
      expect([status, out]).to match([0, /\Apeak_db /]), err
      expect(err.lines.map(&:chomp)).to eq err.lines.map(&:chomp).uniq
      expect(Open3.capture2("soxi", "-D", at("mix.wav"))[0].to_f).to be > seconds
      expect(File.size(at("mix.wav"))).to be > 12_000_000
      FileUtils.rm_f(at("mix.wav"))
    end
  end
end
