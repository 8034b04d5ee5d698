# frozen_string_literal: true

require "open3"

# What messages of controllers mean, against MIDI 1.0 and python3-mido; and how a control comes to what it turns.
RSpec.describe "Controllers" do
  script = <<~JS
    import { readFileSync } from "node:fs";
    import { build } from "vite";
    const load = async (entry) => {
      const lib = { entry, formats: ["es"] };
      const [{ output }] = await build({ configFile: false, logLevel: "silent", build: { write: false, minify: false, lib } });
      return import(`data:text/javascript,${encodeURIComponent(output[0].code)}`);
    };
    const [reader, pickup, writer] = await Promise.all(["reader", "pickup", "writer"].map((name) => load(`web/src/gestures/midi/${name}.ts`)));
    const asked = JSON.parse(readFileSync(0, "utf8"));
    const answers = {
      read: (...messages) => { const one = new reader.Reader(); return messages.flatMap((bytes) => one.read(bytes)); },
      steps: (kind, ...raws) => raws.map((raw) => reader.stepsOf(kind, raw)),
      write: (name, ...inputs) => writer[name](...inputs),
      pickup: (way, ...moves) => { const one = new pickup.Pickup(way); return moves.map(([place, stands]) => one.turn(place, stands)); },
    };
    console.log(JSON.stringify(asked.map(([name, ...inputs]) => answers[name](...inputs))));
  JS

  define_method(:ask) do |*asked|
    output, status = Open3.capture2("node", "--input-type=module", "-e", script, stdin_data: JSON.generate(asked), chdir: File.expand_path("../..", __dir__))
    expect(status).to be_success
    JSON.parse(output)
  end

  def mido(code, data)
    out, status = Open3.capture2("/usr/bin/python3", "-c", "import json,sys,mido\ndata=json.load(sys.stdin)\n#{code}", stdin_data: JSON.generate(data))
    expect(status).to be_success
    JSON.parse(out)
  end

  it "read what python3-mido sends: controllers, pairs, keys, pressures, the pitch wheel with its centre half way" do
    made = mido(<<~PYTHON, nil)
      M=mido.Message
      print(json.dumps([list(m.bytes()) for m in [M('control_change',channel=3,control=74,value=64), M('control_change',control=1,value=100),
        M('control_change',control=33,value=5), M('pitchwheel',pitch=0), M('pitchwheel',pitch=8191), M('pitchwheel',pitch=-8192),
        M('aftertouch',value=127), M('polytouch',note=60,value=0), M('note_on',note=60,velocity=127), M('note_on',note=60,velocity=0)]]))
    PYTHON
    said = ask([:read, *made])[0].map { |one| [one["control"], one["value"].round(6)] }
    expect(said).to eq [["cc/3/74", (64 / 127.0).round(6)], ["cc/0/1", (100 / 127.0).round(6)], ["cc/0/33", (5 / 127.0).round(6)],
                        ["cc14/0/1", (((100 * 128) + 5) / 16_383.0).round(6)], ["bend/0", 0.5], ["bend/0", 1], ["bend/0", 0],
                        ["pressure/0", 1], ["key-pressure/0/60", 0], ["note/0/60", 1], ["note/0/60", 0]]
  end

  it "send what python3-mido reads" do
    made = ask([:write, :controllerBytes, 2, 7, 1], [:write, :fineBytes, 0, 1, 0.5], [:write, :bendBytes, 0, 0.5], [:write, :bendBytes, 0, 1],
               [:write, :noteBytes, 0, 60, true, 1], [:write, :noteBytes, 0, 60, false], [:write, :pressureBytes, 1, 0])
    messages = made.flat_map { |bytes| bytes[0].is_a?(Array) ? bytes : [bytes] }
    read = mido("print(json.dumps([str(mido.Message.from_bytes(m)) for m in data]))", messages)
    expect(read).to eq ["control_change channel=2 control=7 value=127 time=0", "control_change channel=0 control=1 value=64 time=0",
                        "control_change channel=0 control=33 value=0 time=0", "pitchwheel channel=0 pitch=0 time=0", "pitchwheel channel=0 pitch=8191 time=0",
                        "note_on channel=0 note=60 velocity=127 time=0", "note_off channel=0 note=60 velocity=0 time=0", "aftertouch channel=1 value=0 time=0"]
  end

  # Two's complement and sign bit as in common practice for encoders, no source.
  it "count the steps of encoders in two's complement, with a sign bit, or about 64" do
    expect(ask([:steps, :twos, 1, 3, 127, 125, 64])[0]).to eq [1, 3, -1, -3, -64]
    expect(ask([:steps, :sign, 1, 3, 65, 67])[0]).to eq [1, 3, -1, -3]
    expect(ask([:steps, :offset, 65, 67, 63, 61])[0]).to eq [1, 3, -1, -3]
  end

  it "leave out what is no message" do
    expect(ask([:read, [], [0xb0], [0xb0, 200, 1], [0xb0, 1], [12, 1, 1], [0xf8], [0xff, 1, 1], [nil, 1, 1]])[0]).to eq []
  end

  it "jump, are caught as they pass, or come to it little by little" do
    expect(ask([:pickup, :jump, [0.9, 0.2]])[0]).to eq [0.9]
    # From above it is not caught; on its way past it is, and from then on it leads.
    expect(ask([:pickup, :catch, [0.9, 0.5], [0.7, 0.5], [0.45, 0.5], [0.2, 0.45]])[0]).to eq [nil, nil, 0.45, 0.2]
    expect(ask([:pickup, :catch, [0.51, 0.5], [0.6, 0.51]])[0]).to eq [0.51, 0.6]
    first, up, top, down = ask([:pickup, :scaled, [0.2, 0.6], [0.6, 0.6], [1.0, 0.8], [0.5, 1.0]])[0]
    expect([first, up.round(9), top.round(9), down.round(9)]).to eq [nil, 0.8, 1, 0.5]
  end
end
