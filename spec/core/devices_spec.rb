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
    sound = Dir[File.expand_path("../../web/src/sound/devices/*.ts", __dir__)].map { |file| File.read(file) }.join
    described_class::TYPES.each do |id, type|
      expect(sound).to match(/^  "?#{id}"?: /)
      type.parameters.each_key { |parameter| expect(sound).to match(/\b#{parameter.sub(/\d+\z/, '')}/) }
    end
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
