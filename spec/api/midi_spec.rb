# frozen_string_literal: true

require "open3"

# MIDI files read: against python3-mido, which writes them, and against Standard MIDI Files 1.0's own numbers.
RSpec.describe "MIDI files" do
  # A file as mido writes it, from lines of Python that fill `mid`.
  def written(lines)
    script = "import mido,io,sys\nfrom mido import MidiFile,MidiTrack,Message,MetaMessage\nmid=MidiFile(ticks_per_beat=480)\n#{lines}\n" \
             "out=io.BytesIO();mid.save(file=out);sys.stdout.buffer.write(out.getvalue())"
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", script, binmode: true)
    status.success? ? out : raise(err)
  end

  def send_midi(bytes, name: "Tide chart")
    call("POST", "/api/songs/import_midi?name=#{URI.encode_www_form_component(name)}", bytes, "CONTENT_TYPE" => "audio/midi")
  end

  def codes(answer) = [last_response.status, answer.fetch("faults", []).map { |fault| fault["code"] }]

  let(:bytes) do
    written(<<~PYTHON)
      head=MidiTrack();mid.tracks.append(head)
      head.append(MetaMessage('time_signature',numerator=3,denominator=4))
      head.append(MetaMessage('set_tempo',tempo=mido.bpm2tempo(96)))
      head.append(MetaMessage('set_tempo',tempo=mido.bpm2tempo(72),time=480*6))
      head.append(MetaMessage('marker',text='chorus',time=10))
      bass=MidiTrack();mid.tracks.append(bass)
      bass.append(MetaMessage('track_name',name='Low rope'))
      bass.append(Message('control_change',control=7,value=127))
      bass.append(Message('control_change',control=10,value=64))
      bass.append(Message('note_on',note=40,velocity=90,time=480))
      bass.append(Message('note_off',note=40,time=240))
      for i in range(64): bass.append(Message('control_change',control=7,value=127-i,time=15))
      bass.append(Message('note_on',note=43,velocity=70,time=0))
      bass.append(Message('note_on',note=43,velocity=0,time=480))
      bass.append(Message('pitchwheel',pitch=8191,time=0))
      bass.append(Message('control_change',control=85,value=9,time=0))
      drums=MidiTrack();mid.tracks.append(drums)
      for n in (35,38,42): drums.append(Message('note_on',channel=9,note=n,velocity=100)); drums.append(Message('note_off',channel=9,note=n,time=120))
    PYTHON
  end

  it "become songs: tracks, notes, tempo, time signature, controllers as envelopes in the clips; what is left out is told" do
    answer = send_midi(bytes)
    expect(last_response.status).to eq 201
    song = snapshot(answer["id"]).song
    tempo = song.tempo.points.map { |one| [one.tick, one.bpm.round(3)] }
    expect([song.name, song.meters.at(0).beats, tempo]).to eq ["Tide chart", 3, [[0, 96.0], [5760, 72.0]]]
    bass, drums = song.tracks
    clip = song.clip(bass.regions.first.clip_id)
    expect([bass.name, clip.notes.map do |one|
      [one.tick, one.length_ticks, one.pitch, one.velocity]
    end]).to eq ["Low rope", [[960, 480, 40, 90], [3360, 960, 43, 70]]]
    expect([drums.devices.first.type, song.clip(drums.regions.first.clip_id).notes.map(&:pitch)]).to eq ["drum-kit", [36, 38, 42]]
    expect(clip.envelopes.map { |one| one.target.parameter_id }).to eq %w[volume pan bend]
    expect(clip.envelopes.first.points.size).to be < 16
    expect(answer["left_out"]).to eq ["1 event of controller 85"]
    expect(song.markers.map { |one| [one.tick, one.name] }).to eq [[5780, "chorus"]]
    expect(KindSatchel::Document.load(JSON.parse(json_of(song)))).to eq song
  end

  # Controller 7 is 40 log10 of its share, 64 in controller 10 is the middle (MIDI Manufacturers Association; RP-036).
  it "keep names beyond ASCII, as UTF-8 or as the older eight bits" do
    bytes = %w[utf-8 latin1].map do |charset|
      written(<<~PYTHON)
        mid.charset='#{charset}'
        one=MidiTrack();mid.tracks.append(one)
        one.append(MetaMessage('track_name',name='Marché'))
        one.append(MetaMessage('marker',text='Été'))
        one.append(Message('note_on',note=40,velocity=90));one.append(Message('note_off',note=40,time=240))
      PYTHON
    end
    songs = bytes.map { |file| snapshot(send_midi(file).fetch("id")).song }
    expect(songs.map { |song| [song.tracks.first.name, song.markers.first.name] }).to eq [%w[Marché Été]] * 2
  end

  it "bring every time signature, each from its bar; one that a song cannot have is told" do
    song = snapshot(send_midi(written(<<~PYTHON)).fetch("id")).song
      one=MidiTrack();mid.tracks.append(one)
      for (n,d,t) in ((4,4,0),(7,8,480*8),(99,4,210*8),(3,4,0)): one.append(MetaMessage('time_signature',numerator=n,denominator=d,time=t))
      one.append(Message('note_on',note=40,velocity=90,time=480*3));one.append(Message('note_off',note=40,time=240))
    PYTHON
    expect(song.meters.sections.map { |at| [at.bar, at.tick, at.meter.beats, at.meter.unit] }).to eq [[1, 0, 4, 4], [3, 7680, 7, 8], [4, 11_040, 3, 4]]
    region = song.tracks.first.regions.first
    expect([song.meters.text(region.start_tick), song.meters.text(region.end_tick)]).to eq ["5.1.0", "6.1.0"]
  end

  it "move what the table of controllers names; what the instrument does not have is told" do
    file = written(<<~PYTHON)
      one=MidiTrack();mid.tracks.append(one)
      for i in range(8):
        for c in (1,11,74): one.append(Message('control_change',control=c,value=i*16,time=20))
      one.append(Message('note_on',note=40,velocity=90));one.append(Message('note_off',note=40,time=240))
    PYTHON
    targets = lambda do |controls|
      answer = call("POST", "/api/midi?name=x#{controls && "&controls=#{controls}"}", file, "CONTENT_TYPE" => "audio/midi")
      [answer["document"]["clips"].first["envelopes"].map { |one| one["target"].split("/").last }.sort, answer["left_out"].sort]
    end
    before = get_json("/api/songs").size
    expect(targets.call(nil)).to eq [["cutoff"], ["8 events of controller 1", "8 events of controller 11"]]
    expect(targets.call("1:cutoff,11:flute")).to eq [["cutoff"], ["8 events for flute, which Mono synth does not have", "8 events of controller 74"]]
    expect(codes(call("POST", "/api/midi?controls=200:cutoff", file, "CONTENT_TYPE" => "audio/midi"))).to eq [422, ["bad_table"]]
    expect(codes(call("POST", "/api/midi?controls=nonsense", file, "CONTENT_TYPE" => "audio/midi"))).to eq [422, ["bad_table"]]
    expect(get_json("/api/songs").size).to eq before
  end

  it "give levels and places as the recommended practices have them" do
    song = snapshot(send_midi(bytes)["id"]).song
    bass = song.tracks.first
    volume, pan = %w[volume pan].map { |name| song.parameter(address("#{bass.id}/channel/#{name}")) }
    text = ->(parameter, tick) { parameter.text(KindSatchel::Heard::Resolver.new(song, address("#{bass.id}/channel/#{parameter.id}")).at(tick)) }
    expect([text.call(volume, 0), text.call(pan, 0)]).to eq ["0.0 dB", "C"]
    # 48 steps of 15 ticks after the note's end at tick 720 the controller is at 80: 40 log10(80/127) = -8.0 dB.
    expect(text.call(volume, (720 + (48 * 15)) * 2).to_f).to be_within(0.1).of(40 * Math.log10(80 / 127.0))
  end

  # The table of Standard MIDI Files 1.0: numbers and their variable-length forms.
  it "read the standard's own variable-length numbers" do
    table = { 0x40 => "40", 0x7F => "7F", 0x80 => "8100", 0x2000 => "C000", 0x3FFF => "FF7F", 0x4000 => "818000", 0x100000 => "C08000" }
    events = table.values.map { |hex| [hex].pack("H*") + [0x90, 60, 100, 0x60, 0x80, 60, 0].pack("C*") }.join + [0, 0xFF, 0x2F, 0].pack("C*")
    song = snapshot(send_midi("MThd".b + [6, 0, 1, 960].pack("Nnnn") + "MTrk".b + [events.bytesize].pack("N") + events)["id"]).song
    region = song.tracks.first.regions.first
    starts = song.clip(region.clip_id).notes.map { |one| region.start_tick + one.tick }
    expect(starts.each_cons(2).map { |one, other| other - one - 0x60 }.unshift(starts.first)).to eq table.keys
  end

  it "that are small need no worker: they are read while all work there is waits" do
    allow(Server.long_work).to receive(:run).and_raise(Turns::Full)
    expect([send_midi(bytes), last_response.status].last).to eq 201
    long = written("one=MidiTrack();mid.tracks.append(one)\nfor i in range(3000): one.append(Message('note_on',note=40,velocity=90));" \
                   "one.append(Message('note_off',note=40,time=24))")
    expect(codes(send_midi(long))).to eq [503, ["too_much_work"]]
  end

  it "are refused, with a reason and the place, when broken, of another kind, too many, or without notes; nothing is stored" do
    before = get_json("/api/songs").size
    expect(codes(send_midi("RIFF"))).to eq [422, ["no_midi"]]
    expect(codes(send_midi(bytes[0, bytes.bytesize - 9]))).to eq [422, ["broken_midi"]]
    expect(codes(send_midi(bytes.dup.tap { |some| some.setbyte(9, 2) }))).to eq [422, ["wrong_type"]]
    events = [0, 0x90, 60, 1].pack("C*") + ([0, 60, 0].pack("C*") * 160_000) + [0, 0xFF, 0x2F, 0].pack("C*")
    many = "MThd".b + [6, 0, 1, 96].pack("Nnnn") + "MTrk".b + [events.bytesize].pack("N") + events
    expect(codes(send_midi(many))).to eq [422, ["too_many_events"]]
    held = (0..1100).map { |i| [0, 0x90, i % 128, 1].pack("C*") }.join + [0, 0xFF, 0x2F, 0].pack("C*")
    expect(codes(send_midi("MThd".b + [6, 0, 1, 96].pack("Nnnn") + "MTrk".b + [held.bytesize].pack("N") + held))).to eq [422, ["too_many_held"]]
    expect(codes(send_midi(written("mid.tracks.append(MidiTrack())")))).to eq [422, ["no_notes"]]
    post_json("/api/songs/import_midi")
    expect([last_response.status, get_json("/api/songs").size]).to eq [415, before]
  end
end
