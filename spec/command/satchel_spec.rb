# frozen_string_literal: true

require "net/http"
require "open3"
require "stringio"
require_relative "../../app/command_line"

RSpec.describe "bin/satchel" do
  let(:folder) { Dir.mktmpdir }
  let(:song) { DemoSong.build }
  let(:cutoff) { "rope-bass/synth/cutoff" }
  let!(:file) { write("song.json", json_of(song)) }

  after { FileUtils.rm_rf(folder) }

  def write(name, text) = File.join(folder, name).tap { |path| File.write(path, text) }

  # The class itself, since starting Ruby anew each time takes long.
  def satchel(*arguments)
    out, err = StringIO.new, StringIO.new
    status = CommandLine.new(arguments.map(&:to_s), out:, err:).run
    [out.string, err.string, status]
  end

  # With none of Bundler's settings and no gem of the tests at hand.
  it "starts by itself" do
    clean = ENV.keys.grep(/\A(BUNDLE|RUBY|GEM)/).to_h { |key| [key, nil] }
    program = File.expand_path("../../bin/satchel", __dir__)
    out, err, status = Open3.capture3(clean, "ruby", program, "validate", file, chdir: "/")
    expect([out, err, status.exitstatus]).to eq ["valid\n", "", 0]
    expect(Open3.capture3(clean, "ruby", program, "juggle", chdir: "/")[2].exitstatus).to eq 1
  end

  it "prints what is heard as CSV, with silence as -inf" do
    out, = satchel("heard", file, cutoff, "--from", 15_360, "--to", 16_320, "--step", 480)
    rows = out.lines.map { |line| line.chomp.split(",") }
    expect(rows.shift).to eq %w[tick normalised natural]
    resolver = KindSatchel::Heard::Resolver.new(song, address(cutoff))
    expect(rows.map { |tick, value, _| [tick.to_i, value.to_f] }).to eq([15_360, 15_840, 16_320].map { |tick| [tick, resolver.at(tick)] })
    expect(satchel("heard", file, "gull-chop/channel/send-echo-pier", "--from", 30_720, "--to", 30_720, "--step", 1)[0].lines.last.chomp).to eq "30720,0.0,-inf"
  end

  it "explains, flattens, tells the time and lists the parameters" do
    expect(satchel("explain", file, cutoff, "--at", 20_000)[0].lines.map { |line| line.split.first }).to eq %w[Rope knob lane clip heard]
    flat = ->(tolerance) { satchel("flatten", file, cutoff, "--tolerance", tolerance)[0].lines.size }
    expect(flat.call(0.0001)).to be > 2 * flat.call(0.01)
    expect(satchel("clock", file, "--at", 3840)[0].to_f).to be_within(1e-12).of(4 * 60.0 / 92)
    expect(satchel("params",
file)[0]).to include("rope-bass/synth/cutoff,log,Hz,30.0,18000.0,800 Hz", "gull-chop/channel/send-echo-pier,fader,dB,-inf,0.0,-inf dB")
  end

  it "lists the loose ends of a song, and says by its status whether there are any" do
    out, _, status = satchel("check", file)
    expect([out.lines.first.chomp, status]).to eq ["A fade that does not start level: A fade of Volume on Master starts a hair off the value before it.", 1]
    expect(satchel("check", write("small.json", json_of(small_song)))).to eq ["", "", 0]
  end

  it "hands a song over into a folder, whole or not at all, and says what is lost" do
    goal = File.join(folder, "out")
    choices = ->(**data) { write("choices.json", JSON.generate(data)) }
    out, err, status = satchel("hand-over", file, choices.call(midi: true, csv: "samples", limits: { straight: true, lanes_only: true, bits: 7 }), goal)
    expect([status, err, Dir.children(goal).sort]).to eq [0, "", %w[README.txt low-tide-market.mid moves.csv]]
    expect(out.lines.map(&:chomp)).to include(/\ACutoff of Mono synth on Rope Bass, \d+, \d+ Hz, [\d.]+ Hz\z/)
    expect(satchel("hand-over", file, choices.call(midi: true), goal)[1..]).to eq ["#{goal} is there already.\n", 1]
    bad = choices.call(midi: false, csv: "samples", step_ticks: 1)
    expect(satchel("hand-over", file, bad, File.join(folder, "none"))[1]).to match(/more than \d+ values/)
    expect(Dir.children(folder).grep(/none|part/)).to eq []
  end

  it "renders a song to a sound as long as was asked for", :long do
    goal = File.join(folder, "mix.wav")
    out, _, status = satchel("mixdown", file, goal, "--from", 8 * BAR, "--to", 9 * BAR, "--bits", 32, "--rate", 96_000)
    expect([status, out.lines.map { |line| line.split.first }]).to eq [0, %w[peak_db true_peak_db loudness]]
    info, = Open3.capture2("sox", "--i", goal)
    expect(info).to include("Sample Rate    : 96000", "Floating Point")
    expect(Open3.capture2("soxi", "-D", goal)[0].to_f).to be_between(4 * 60 / 92.0, (4 * 60 / 92.0) + 12)
    expect(satchel("mixdown", file, goal)[1..]).to eq ["#{goal} is there already.\n", 1]
    expect(satchel("mixdown", file, "#{goal}2", "--rate", 8000)[2]).to eq 1
  end

  it "compares two documents, parameter by parameter" do
    other = JSON.parse(File.read(file))
    other["tracks"][1]["devices"].last["values"]["pan"] = 0.2
    other["tracks"].delete_at(2)
    out, err, status = satchel("compare", file, write("other.json", JSON.generate(other)))
    expect([out.lines.map(&:chomp), err, status]).to match [[%r{\APan of Rope Bass: at most L/R 60 .*1\.1\.0}, "track Fog Pad is not in the second"], "", 1]
    expect(satchel("compare", file, file)).to eq ["", "", 0]
  end

  it "shows a song that can be read and played, and changed by nobody, until it is stopped" do
    expect(satchel("serve", file)[1..]).to match [/--read-only is missing/, 1]
    told, said = IO.pipe
    pid = spawn(File.expand_path("../../bin/satchel", __dir__), "serve", "--read-only", file, out: said, err: said)
    address = URI(told.gets[%r{http://\S+/songs/\d+}])
    expect(Net::HTTP.get(address)).to include "<title>"
    songs = URI.join(address, "/api/songs")
    expect(JSON.parse(Net::HTTP.get(songs)).map { |one| one["name"] }).to eq ["Low Tide Market"]
    post = ->(path, data) { JSON.parse(Net::HTTP.post(URI.join(address, "/api#{address.path}#{path}"), JSON.generate(data), "Content-Type" => "application/json").body) }
    wish = { revision: 1, edit: "rename_song", inputs: { name: "Mine" } }
    expect([post.call("/preview", wish)["faults"], post.call("/edits", wish)["faults"][0]["code"]]).to eq [nil, "only_shown"]
    expect(post.call("/versions", { name: "Mine" })["faults"][0]["code"]).to eq "only_shown"
    expect(satchel("serve", "--read-only", file, "--port", address.port)[1..]).to eq ["Port #{address.port} is taken; name another one with --port.\n", 1]
    Process.kill("INT", pid)
    Process.wait(pid)
    expect { Net::HTTP.get(songs) }.to raise_error(Errno::ECONNREFUSED)
  end

  it "lists the moves of a file" do
    move = { name: "Ebb, slow", tags: %w[fade out], role: "set", length_ticks: 1920,
points: [{ tick: 0, value: 1, shape: "straight" }, { tick: 1920, value: 0, shape: "hold" }] }
    moves = write("moves.json", JSON.generate(format: "kind-satchel-moves", version: 1, moves: [move]))
    expect(satchel("moves", moves)[0]).to eq "name,tags,role,beats\n\"Ebb, slow\",fade out,set,2.0\n"
    formula = write("formula.json", JSON.generate(format: "kind-satchel-moves", version: 1, moves: [move.merge(name: "=1+1", tags: ["@here", "a\"b"])]))
    expect(satchel("moves", formula)[0].lines.last).to eq "'=1+1,\"'@here a\"\"b\",set,2.0\n"
    expect(satchel("moves", write("none.json", "[]"))[1..]).to match [/set of named values/, 1]
  end

  it "validates, and edits a document" do
    expect(satchel("validate", file)[0]).to eq "valid\n"
    edits = write("edits.json",
JSON.generate([{ edit: "rename_song", inputs: { name: "Ebb" } }, { edit: "add_lane", inputs: { address: "master/channel/pan" } }]))
    out, = satchel("edit", file, edits)
    expected = apply(apply(song, "rename_song", name: "Ebb").song, "add_lane", address: "master/channel/pan").song
    expect(JSON.parse(out)).to eq JSON.parse(json_of(expected))
  end

  it "makes every edit of the envelope editor, and stops at the first that cannot be" do
    id = song.clip("mooring").envelopes.first.id
    all = { envelope_id: id, runs: [[0, 3]] }
    list = [["flip_points", all], ["boost_points", { **all, amount: "+5 %" }],
            ["enter_points", { envelope_id: id, runs: [[1, 1]], value: "20 %", position: "2.1" }],
            ["shape_segments", { envelope_id: id, runs: [[0, 0]], shape: { shape: "cycle", wave: "square", cycles: 8 } }],
            ["draw_stretch", { envelope_id: id, how: "steps", grid_ticks: 240, points: [[4800, 0.1], [5040, 0.4]] }],
            ["fade", { envelope_id: id, from_tick: 6000, to_tick: 7680, direction: "out" }]]
    made = list.reduce(song) { |current, (name, inputs)| apply(current, name, **JSON.parse(JSON.generate(inputs)).transform_keys(&:to_sym)).song }
    out, = satchel("edit", file, write("edits.json", JSON.generate(list.map { |edit, inputs| { edit:, inputs: } })))
    expect(JSON.parse(out)).to eq JSON.parse(json_of(made))
    bad = [list[0], ["boost_points", { **all, amount: "loud" }]]
    out, err, status = satchel("edit", file, write("bad.json", JSON.generate(bad.map { |edit, inputs| { edit:, inputs: } })))
    expect([out, err, status]).to match ["", %r{/1/amount: "loud" is no amount here}, 1]
  end

  it "prints the demo song, the same as the app shows" do
    expect(JSON.parse(satchel("demo")[0])).to eq JSON.parse(json_of(song))
  end

  it "ends with a clear sentence and a failure on bad input" do
    broken = write("broken.json", json_of(song).sub('"role":"shift"', '"role":"twist"'))
    wrong = write("wrong.json", JSON.generate([{ edit: "rename_song", inputs: { name: "Ebb" } }, { edit: "rename_song", inputs: {} }]))
    { ["heard", file, "nonsense"] => /not an address/, ["heard", file, cutoff, "--from", 0] => /--to is missing/,
      ["clock", file, "--at", "soon"] => /invalid argument/i,
      ["validate", broken] => %r{/envelopes/0/role}, ["validate", "/nowhere.json"] => /No such file/, ["juggle"] => /There is no command juggle/,
      ["edit", file, wrong] => %r{/1: name is missing}, ["flatten", file, cutoff, "--tolerance", 5] => /tolerance/ }.each do |arguments, sentence|
      out, err, status = satchel(*arguments)
      expect([out, err, status]).to match ["", sentence, 1]
    end
  end

  # In a process of its own, with a store of its own, as beside a running app.
  it "packs a song with its sounds and unpacks it into another store, where what is missing is said", :long do
    program, environment = %w[bin/satchel app/environment].map { |name| File.expand_path("../../#{name}", __dir__) }
    ruby = ->(text) { Open3.capture2("ruby", stdin_data: "require '#{environment}'; #{text}")[0].strip }
    store = ->(name) { File.join(folder, name).tap { |path| ruby.call("Database.connect('#{path}', alone: false)") } }
    clean = ENV.keys.grep(/\A(BUNDLE|RUBY|GEM)/).to_h { |key| [key, nil] }
    run = ->(path, *arguments) { Open3.capture3(clean.merge("SATCHEL_DB" => path), "ruby", program, *arguments) }
    horn = File.join(folder, "horn.wav")
    system("sox", "-n", horn, "synth", "0.2", "sine", "300", exception: true)
    one, other = store.call("one.sqlite3"), store.call("other.sqlite3")
    digest = ruby.call("Database.connect('#{one}', alone: false); puts SoundStore.new('#{one}-sounds').take('#{horn}', name: 'Horn').digest")
    clip = song.clips.values.find(&:audio)
    played = write("horn.json", json_of(song.with_clip(clip.with(audio: clip.audio.with(sound: digest)))))
    packed = File.join(folder, "horn.zip")
    expect(run.call(other, "pack", played, File.join(folder, "bare.zip"))[1]).to include "#{digest} is not in the store"
    expect(run.call(one, "pack", played, packed)[2].exitstatus).to eq 0
    out, err, status = run.call(other, "unpack", packed)
    expect([JSON.parse(out), err, status.exitstatus]).to eq [JSON.parse(File.read(played)), "", 0]
    expect(File.binread(Dir["#{other}-sounds/*/#{digest}.wav"].first)).to eq File.binread(horn)
    expect(run.call(one, "pack", played, packed)[1]).to include "is there already"
  end
end
