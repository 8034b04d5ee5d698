# frozen_string_literal: true

RSpec.describe KindSatchel::Devices do
  described_class::TYPES.each do |id, type|
    describe id do
      it "has parameters with defaults that read well, and a reason where one cannot move" do
        type.parameters.each_value do |parameter|
          expect(parameter.text(parameter.default)).to match(/\S/)
          expect(parameter.reason.nil?).to be parameter.automatable
        end
      end

      it "refuses an unknown parameter by listing the known ones" do
        expect { type.parameter("nose") }.to raise_error(KindSatchel::NotFound, /#{type.parameters.keys.last}/)
      end
    end
  end

  it "is sounded in full by the browser" do
    sound = Dir[File.expand_path("../../web/src/sound/{,devices/}*.ts", __dir__)].map { |file| File.read(file) }.join
    in_core = %r{\A(?:arpeggiator|scale-quantiser|macro-strip|step-gate/(?:note|count|step-))}
    described_class::TYPES.each do |id, type|
      expect(sound).to match(/^  "?#{id}"?[:,]/)
      parts = /\A(?:#{type.parts.join('|')})-/
      type.parameters.keys.reject { |name| in_core.match?("#{id}/#{name}") }.each do |name|
        expect(sound).to match(/\b#{(type.parts.any? ? name.sub(parts, '') : name).sub(/\d+\z/, '')}/)
      end
    end
  end

  it "gives every part of a kit a send to every return, and the limiter to the master alone" do
    song = DemoSong.build
    at = address("crate-kit/kit/open-hat-send-boathouse")
    expect([song.parameter(at).name, song.parameters_of(song.track("crate-kit")).map(&:first)]).to match ["Open hat: to Boathouse", include(at)]
    sent = apply(song, "set_knob", address: at.to_s, value: 0.5).song
    expect([sent.knob(at), KindSatchel::Document.load(JSON.parse(json_of(sent)))]).to eq [0.5, sent]
    expect(faults { song.parameter(address("crate-kit/kit/open-hat-send-cellar")) }).to eq [["unknown_parameter", ""]]
    gone = apply(sent, "remove_track", track_id: "boathouse").song
    expect([gone.parameter?(at), KindSatchel::Document.load(JSON.parse(json_of(gone)))]).to eq [nil, gone]
    limiters = song.tracks.select { |track| song.parameters_of(track).any? { |one, _| one.parameter_id == "limiter" } }
    expect([limiters.map(&:kind), faults { song.parameter(address("crate-kit/channel/limiter")) }]).to eq [["master"], [["unknown_parameter", ""]]]
  end

  it "gives a sampler a sound, which goes along in documents and copies; nothing else takes one" do
    song = apply(small_song, "replace_device", track_id: "bass", device_id: "synth", type: "sampler").song
    given = apply(song, "set_sound", track_id: "bass", device_id: "synth", sound: "clap", name: "Clap")
    expect([given.words, given.song.track("bass").device("synth").sound]).to eq ["give Clap to the sampler of Bass", "clap"]
    expect(KindSatchel::Document.load(JSON.parse(json_of(given.song)))).to eq given.song
    expect(apply(given.song, "set_sound", track_id: "bass", device_id: "synth", sound: nil).song).to eq song
    expect(faults { apply(song, "set_sound", track_id: "hall", device_id: "reverb", sound: "clap") }).to eq [["no_sampler", "/device_id"]]
  end

  it "gives sends to tracks that play, one for each return" do
    song = DemoSong.build
    sends = ->(id) { song.parameters_of(song.track(id)).map { |at, _| at.parameter_id }.grep(/\Asend-/) }
    expect([sends.call("gull-chop"), sends.call("master")]).to eq [%w[send-boathouse send-echo-pier], []]
    expect(song.parameter(address("gull-chop/channel/send-echo-pier")).name).to eq "Send to Echo Pier"
  end
end

RSpec.describe KindSatchel do
  it "loads on the standard library alone" do
    command = ["ruby", "--disable-gems", "-I", File.expand_path("../../core", __dir__), "-rkind_satchel", "-e", "print KindSatchel::Edits::ALL.ids.size"]
    out = Bundler.with_unbundled_env { IO.popen(command, err: %i[child out], &:read) }
    expect(out).to eq KindSatchel::Edits::NAMES.size.to_s
  end
end
