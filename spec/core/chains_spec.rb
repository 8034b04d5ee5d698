# frozen_string_literal: true

RSpec.describe "Tracks and chains" do
  let(:song) { small_song(clip: [envelope([0, 0.5])], knobs: { "cutoff" => "1 kHz" }) }

  def chain(some, id = "bass") = some.track(id).devices.map(&:id)
  def rows(some) = some.tracks.map(&:name)

  # Holds what every song holds: it is written and read back the same, and everything in it can be heard.
  def sound!(some)
    expect(KindSatchel::Document.load(JSON.parse(json_of(some)))).to eq some
    some.automated.each { |address| expect(KindSatchel::Heard::Resolver.new(some, address).at(BAR)).to be_between(0, 1) }
  end

  describe "adding a track" do
    it "makes one of each kind, where its like stands, with what it starts with; every channel sends to a new return" do
      %w[notes audio carrier group return].each { |kind| sound!(apply(song, "add_track", kind:).song) }
      more = apply(apply(song, "add_track", kind: "notes").song, "add_track", kind: "return", name: "Cellar").song
      expect(rows(more)).to eq %w[Bass Notes Hall Cellar Master]
      expect([chain(more, "track-#{song.next_id}"), more.tracks[1].output]).to eq [%w[mono-synth channel], "master"]
      sends = more.parameters_of(more.track("bass")).map { |address, _| address.parameter_id }.grep(/\Asend-/)
      expect(sends).to eq ["send-hall", "send-#{more.tracks[3].id}"]
    end

    it "puts it above another, in its group, with the devices asked for; what cannot be is said" do
      group = apply(song, "make_group", track_ids: ["bass"]).song
      drums = apply(group, "add_track", kind: "notes", before: "bass", name: "Barrels",
devices: [{ "type" => "drum-kit" }, { "type" => "filter", "values" => { "cutoff" => 0.5 } }], hue: "moss").song
      made = drums.tracks.first
      expect([made.name, made.output, made.hue, made.devices.map(&:type)]).to eq ["Barrels", group.tracks[1].id, "moss", %w[drum-kit filter channel]]
      expect(faults { apply(song, "add_track", kind: "notes", devices: [{ "type" => "loop-player" }]) }).to eq [["wrong_device", "/devices/0/type"]]
      expect(faults do
        apply(song, "add_track", kind: "group", devices: [{ "type" => "filter" }, { "type" => "mono-synth" }])
      end).to eq [["wrong_device", "/devices/1/type"]]
      expect(faults { apply(song, "add_track", kind: "notes", devices: [{ "type" => "theremin" }]) }).to eq [["unknown_device", "/devices/0/type"]]
      expect(faults { apply(song, "add_track", kind: "notes", name: "  ") }).to eq [["bad_name", "/name"]]
      expect(faults { apply(song, "add_track", kind: "notes", before: "gone") }).to eq [["unknown_track", "/before/track_id"]]
    end

    it "colours it otherwise" do
      expect(apply(song, "colour_track", track_id: "bass", hue: "weld").song.track("bass").hue).to eq "weld"
    end
  end

  describe "moving a track" do
    let(:song) do
      two = apply(small_song, "add_track", kind: "notes", name: "Lead").song
      apply(two, "make_group", track_ids: ["bass"]).song
    end
    let(:group) { song.tracks.find { |track| track.kind == "group" }.id }
    let(:lead) { song.tracks.find { |track| track.name == "Lead" }.id }

    it "brings it above another, into that one's group, and out again; a group takes its members along" do
      expect(rows(song)).to eq %w[Bass Group Lead Hall Master]
      inside = apply(song, "move_track", track_id: lead, before: "bass").song
      expect([rows(inside).first(2), inside.track(lead).output]).to eq [%w[Lead Bass], group]
      out = apply(inside, "move_track", track_id: lead, before: "hall").song
      expect([rows(out), out.track(lead).output]).to eq [%w[Bass Group Lead Hall Master], "master"]
      low = apply(song, "move_track", track_id: group, before: "hall").song
      expect(rows(low)).to eq %w[Lead Bass Group Hall Master]
      [inside, out, low].each { |some| sound!(some) }
    end

    it "keeps outputs leading downwards, whatever is moved where" do
      random = Random.new(41)
      40.times do
        some = song
        4.times do
          track, goal = [some.tracks.sample(random:), some.tracks.sample(random:)].map(&:id)
          some = apply(some, "move_track", track_id: track, before: goal).song
        rescue KindSatchel::InvalidInput
          next
        end
        sound!(some)
      end
    end

    it "says what cannot be" do
      expect(faults { apply(song, "move_track", track_id: "master", before: "bass") }).to eq [["master_last", "/track_id"]]
      expect(faults { apply(song, "move_track", track_id: group, before: "bass") }).to eq [["bad_place", "/before"]]
      expect(faults { apply(song, "move_track", track_id: lead, before: "gone") }).to eq [["unknown_track", "/before/track_id"]]
    end
  end

  describe "removing a track" do
    it "says what goes along; a return is taken away, and who sends to it no more" do
      removed = apply(song, "remove_track", track_id: "bass")
      expect(removed.notices.map(&:text)).to eq ["2 regions go along"]
      sent = apply(song, "set_knob", address: "bass/channel/send-hall", value: 0.5).song
      gone = apply(sent, "remove_track", track_id: "hall")
      expect(gone.notices.map(&:text)).to eq ["Bass sends to it no more"]
      [removed.song, gone.song].each { |some| sound!(some) }
      expect(faults { apply(song, "remove_track", track_id: "master") }).to eq [["needed", "/track_id"]]
    end
  end

  describe "a chain" do
    it "takes effects before another or at its end, and moves them; the instrument stays first, the channel last" do
      two = apply(apply(song, "add_device", track_id: "bass", type: "filter").song, "add_device", track_id: "bass", type: "drive", before: "filter").song
      expect(chain(two)).to eq %w[synth drive filter channel]
      moved = apply(two, "move_device", track_id: "bass", device_id: "drive").song
      expect(chain(moved)).to eq %w[synth filter drive channel]
      first = apply(moved, "move_device", track_id: "bass", device_id: "drive", before: "synth").song
      expect(chain(first)).to eq %w[synth drive filter channel]
      again = apply(first, "add_device", track_id: "bass", type: "filter").song
      expect(chain(again)).to eq %w[synth drive filter filter-2 channel]
      sound!(again)
    end

    it "keeps what moved a device that is taken out, and lets it act again on one that answers" do
      filtered = apply(song, "add_device", track_id: "bass", type: "filter").song
      moved = apply(filtered, "embed_envelope", clip_id: "line", address: "bass/filter/cutoff").song
      out = apply(moved, "remove_device", track_id: "bass", device_id: "filter")
      expect([out.notices.map(&:text), out.song.automated.map(&:to_s)]).to eq [["a move of it waits"], [CUTOFF]]
      sound!(out.song)
      back = apply(out.song, "add_device", track_id: "bass", type: "filter").song
      expect(back.automated.map(&:to_s)).to match_array [CUTOFF, "bass/filter/cutoff"]
      expect(json_of(back)).to eq json_of(moved)
    end

    it "replaces an instrument: what answers by name and scale keeps its value and its moves, the rest waits" do
      pad = apply(song, "replace_device", track_id: "bass", device_id: "synth", type: "pad-synth").song
      expect(chain(pad)).to eq %w[synth channel]
      old, now = [song, pad].map { |some| some.parameter(address(CUTOFF)).scale.natural(some.knob(address(CUTOFF))) }
      expect(now).to be_within(1).of(old)
      sound!(pad)
      kit = apply(song, "replace_device", track_id: "bass", device_id: "synth", type: "drum-kit")
      expect([kit.song.automated, kit.notices.map(&:code)]).to eq [[], ["loose"]]
      expect(json_of(apply(kit.song, "replace_device", track_id: "bass", device_id: "synth", type: "mono-synth").song.with(next_id: song.next_id)))
        .to eq json_of(song.with_track(song.track("bass").with(devices: song.track("bass").devices.map { |device| device.with(values: {}) })))
    end

    it "says what cannot be" do
      wrong = ->(name, **inputs) { faults { apply(song, name, track_id: "bass", **inputs) } }
      expect(wrong.call("add_device", type: "mono-synth")).to eq [["already_there", "/type"]]
      expect(wrong.call("add_device", type: "loop-player")).to eq [["wrong_device", "/type"]]
      expect(wrong.call("add_device", type: "channel")).to eq [["wrong_device", "/type"]]
      expect(wrong.call("remove_device", device_id: "channel")).to eq [["channel_stays", "/device_id"]]
      expect(wrong.call("move_device", device_id: "synth")).to eq [["stays_first", "/device_id"]]
      expect(wrong.call("replace_device", device_id: "synth", type: "filter")).to eq [["wrong_device", "/type"]]
      full = (1..98).reduce(song) { |some, _| apply(some, "add_device", track_id: "bass", type: "filter").song }
      expect(faults { apply(full, "add_device", track_id: "bass", type: "filter") }).to eq [["too_many_devices", "/devices"]]
    end

    it "keeps a device of a type this version does not know: silent, with all it holds" do
      record = JSON.parse(json_of(song))
      strange = { "id" => "comb", "type" => "comb-of-tomorrow", "values" => { "teeth" => 0.25 }, "held" => {} }
      record["tracks"].first["devices"].insert(1, strange)
      loaded = KindSatchel::Document.load(record)
      expect(JSON.parse(json_of(loaded))).to eq record
      expect(loaded.parameter?(address("bass/comb/teeth"))).to be_nil
      expect(chain(apply(loaded, "remove_device", track_id: "bass", device_id: "comb").song)).to eq %w[synth channel]
    end

    it "takes the setting of a device or of a whole chain at once; what stands there already keeps its id and its moves" do
      filtered = apply(song, "add_device", track_id: "bass", type: "filter").song
      moved = apply(filtered, "add_lane", address: "bass/filter/cutoff").song
      set = apply(moved, "set_device", track_id: "bass", device_id: "filter", values: { "cutoff" => 0.25 }, name: "Muffled")
      expect([set.song.knob(address("bass/filter/cutoff")), set.words]).to eq [0.25, "set filter of Bass to Muffled"]
      list = [{ "type" => "drive", "values" => { "mix" => 0.5 } }, { "type" => "filter" }, { "type" => "filter" }]
      given = apply(set.song, "set_chain", track_id: "bass", devices: list, name: "Rust").song
      expect(chain(given)).to eq %w[synth drive filter filter-2 channel]
      expect(given.automated.map(&:to_s)).to match_array [CUTOFF, "bass/filter/cutoff"]
      plucked = apply(given, "set_chain", track_id: "bass", devices: [{ "type" => "pluck" }])
      expect([chain(plucked.song), plucked.notices.map(&:text)]).to eq [%w[pluck channel], ["2 moves of it wait"]]
      [set.song, given, plucked.song].each { |some| sound!(some) }
      expect(faults { apply(song, "set_device", track_id: "bass", device_id: "synth", values: { "nose" => 0.5, "cutoff" => 2 }) })
        .to eq [["unknown_parameter", "/values/nose"], ["out_of_range", "/values/cutoff"]]
      expect(faults do
        apply(song, "set_chain", track_id: "hall", devices: [{ "type" => "reverb" }, { "type" => "pluck" }])
      end).to eq [["wrong_device", "/devices/1/type"]]
    end
  end
end
