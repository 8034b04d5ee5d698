# frozen_string_literal: true

require "open3"
require_relative "../../app/midi_file"

# MIDI files as they are written, against readers that nobody here made: python3-mido, the midilib gem, @tonejs/midi; and against
# Standard MIDI Files 1.0's own numbers.
RSpec.describe "MIDI files that are written" do
  core = KindSatchel::HandOver

  def bytes_of(song, error: 0.0, per_second: nil, rows: KindSatchel::HandOver::Controllers.proposed(song), from: 0, to: song.length_ticks)
    ways = KindSatchel::HandOver::Score::Ways.new(rows, error, per_second, nil)
    score = KindSatchel::HandOver::Score.new(song, ways, from:, to:)
    writer = KindSatchel::Formats::MidiWriter.new(score)
    writer.file(score.parts.map { |part| writer.track(part) })
  end

  # By mido: notes as [tick, length, pitch, velocity], controllers as [number, tick, value], of each named track; tempo by tick.
  def mido(bytes)
    script = <<~PYTHON
      import sys,io,json,mido
      mid=mido.MidiFile(file=io.BytesIO(sys.stdin.buffer.read()),charset='utf8'); out={'ppq':mid.ticks_per_beat,'tempo':[],'meter':[],'markers':[],'tracks':{}}
      for t in mid.tracks:
        at=0; open={}; notes=[]; cc=[]; bend=[]
        for m in t:
          at+=m.time
          if m.type=='set_tempo': out['tempo'].append([at,m.tempo])
          if m.type=='time_signature': out['meter'].append([at,m.numerator,m.denominator])
          if m.type=='marker': out['markers'].append([at,m.text])
          if m.type=='note_on' and m.velocity>0: open[m.note]=[at,m.velocity]
          elif m.type in ('note_off','note_on'): s=open.pop(m.note); notes.append([s[0],at-s[0],m.note,s[1]])
          if m.type=='control_change': cc.append([m.control,at,m.value])
          if m.type=='pitchwheel': bend.append([at,m.pitch+8192])
        assert not open
        out['tracks'][t.name]={'notes':sorted(notes),'cc':cc,'bend':bend,'end':at}
      print(json.dumps(out))
    PYTHON
    out, err, status = Open3.capture3("/usr/bin/python3", "-c", script, stdin_data: bytes, binmode: true)
    status.success? ? JSON.parse(out) : raise(err)
  end

  def tonejs(bytes)
    script = <<~JS
      import midi from "@tonejs/midi"; import { readFileSync } from "node:fs";
      const read = new midi.Midi(readFileSync(0));
      console.log(JSON.stringify({ ppq: read.header.ppq, tempos: read.header.tempos.map(({ ticks, bpm }) => [ticks, bpm]),
        tracks: Object.fromEntries(read.tracks.map((t) => [t.name, { notes: t.notes.map((n) => [n.ticks, n.durationTicks, n.midi, Math.round(n.velocity * 127)]),
          cc: Object.values(t.controlChanges).flat().map((c) => [c.number, c.ticks, Math.round(c.value * 127)]) }])) }));
    JS
    out, err, status = Open3.capture3("node", "--input-type=module", "-e", script, stdin_data: bytes, binmode: true, chdir: File.expand_path("../..", __dir__))
    status.success? ? JSON.parse(out) : raise(err)
  end

  def midilib(bytes)
    sequence = MIDI::Sequence.new
    sequence.read(StringIO.new(bytes))
    sequence.tracks.to_h do |track|
      notes = track.events.grep(MIDI::NoteOn).reject { |event| event.velocity.zero? }
      [track.name, { "notes" => notes.map do |event|
        [event.time_from_start, event.off.time_from_start - event.time_from_start, event.note, event.velocity]
      end.sort,
                     "cc" => track.events.grep(MIDI::Controller).map { |event| [event.controller, event.time_from_start, event.value] } }]
    end
  end

  let(:demo) { DemoSong.build }

  it "are read alike by three readers: the notes that are heard, and controllers within half a step of what is heard" do
    bytes = bytes_of(demo)
    by_mido, by_tone, by_lib = mido(bytes), tonejs(bytes), midilib(bytes)
    expect([by_mido["ppq"], by_tone["ppq"], by_mido["meter"]]).to eq [960, 960, [[0, 4, 4]]]
    expect(by_mido["tempo"].map { |_, micros| 60_000_000.0 / micros }).to match [be_within(1e-3).of(92)]
    expect(by_tone["tempos"].map(&:last)).to match [be_within(1e-3).of(92)]
    heard = KindSatchel::Heard::Events.new(demo).in_range(0, demo.length_ticks).select { |event| event["kind"] == "note" }
    wanted = heard.group_by { |event| demo.track(event["track_id"]).name }
                  .transform_values do |list|
      list.map do |event|
        [event["start_tick"], event["end_tick"] - event["start_tick"], event["pitch"], event["velocity"]]
      end.sort
    end
    [by_mido["tracks"], by_tone["tracks"], by_lib].each do |tracks|
      expect(tracks.transform_values { |track| track["notes"].sort }.reject { |_, notes| notes.empty? }).to eq wanted
    end
    by_mido["tracks"].each do |name, track|
      expect([by_lib[name]["cc"].sort, (by_tone["tracks"][name] || { "cc" => [] })["cc"].sort]).to eq [track["cc"].sort, track["cc"].sort]
    end
    random = Random.new(3)
    core::Controllers.proposed(demo).each do |row|
      track = by_mido["tracks"].fetch(demo.track(core::Controllers.channel_track(demo, row.address)).name)
      events = track["cc"].select { |number, _, _| number == row.number }
      law = core::ControlEvents::Law.of(row.address.parameter_id, row)
      ticks = (Array.new(200) { random.rand(demo.length_ticks) } + events.map { |event| event[1] }.first(200)).uniq.sort
      values = KindSatchel::Heard::Resolver.new(demo, row.address).at_each(ticks)
      off = ticks.zip(values).map { |tick, value| (events.reverse.find { |event| event[1] <= tick }[2] - (law.out(value) * 127)).abs }
      expect(off.max).to be <= 0.5 + (127 * core::Course::FINE * 1.5) + 1e-6
    end
  end

  it "have tempo in steps that keep every tick within a millisecond, markers and later signatures, of a stretch as well" do
    song = apply(apply(demo, "glide_tempo", from_tick: 8 * BAR, to_tick: 12 * BAR, from_bpm: 92, to_bpm: 60, shape: "curved", curve: 0.4).song,
                 "add_marker", tick: 9 * BAR, name: "Quay – früh").song
    song = apply(song, "set_meter", bar: 11, beats: 3, unit: 4).song
    [[0, song.length_ticks], [(9 * BAR) + 700, 14 * BAR]].each do |from, to|
      read = mido(bytes_of(song, rows: [], from:, to:))
      steps = read["tempo"]
      seconds = lambda do |tick|
        steps.each_cons(2).sum { |(start, micros), (finish, _)| [[tick, finish].min - start, 0].max * micros / 960_000_000.0 } +
          ([tick - steps[-1][0], 0].max * steps[-1][1] / 960_000_000.0)
      end
      apart = (from..to).step(97).map { |tick| (seconds.call(tick - from) - (song.tempo.seconds_at(tick) - song.tempo.seconds_at(from))).abs }
      expect(apart.max).to be < 0.001
      expect(read["markers"]).to eq(from.zero? ? [[9 * BAR, "Quay – früh"]] : [])
      expect(read["meter"][-1]).to eq [(10 * BAR) - from, 3, 4]
      expect(read["tracks"].fetch(song.name)["end"]).to eq to - from
    end
  end

  it "have pairs of fourteen bits, pitch bend in semitones, and no more events a second than asked for" do
    lanes = [envelope([0, 0.0], [4 * BAR, 1.0], [6 * BAR, 0.2], target: "bass/synth/cutoff", id: "one"),
             envelope([0, 0.5], [4 * BAR, 1.0], target: "bass/synth/bend", id: "two")]
    song = small_song(lanes:)
    rows = [core::Controllers::Row.new(address: address("bass/synth/cutoff"), number: 16, bits: 14),
            core::Controllers::Row.new(address: address("bass/synth/bend"), number: "bend", bits: 14)]
    track = mido(bytes_of(song, rows:, error: 0.0005))["tracks"].fetch("Bass")
    state, pairs = [nil, nil], []
    track["cc"].select { |number, _, _| [16, 48].include?(number) }.each do |number, tick, value|
      state[number == 16 ? 0 : 1] = value
      pairs << [tick, (state[0] << 7) | state[1]] if number == 48
    end
    pairs.each { |tick, value| expect(value / 16_383.0).to be_within(0.0008).of(heard(song, "bass/synth/cutoff", tick)) }
    expect(track["cc"].first(6)).to eq [[101, 0, 0], [100, 0, 0], [6, 0, 24], [38, 0, 0], [101, 0, 127], [100, 0, 127]]
    expect(track["bend"].first).to eq [0, 8192]
    track["bend"].each { |tick, value| expect((value - 8192) * 24 / 8191.0).to be_within(0.05).of((heard(song, "bass/synth/bend", tick) - 0.5) * 48) }
    few = mido(bytes_of(song, rows:, error: 0.0, per_second: 20))["tracks"].fetch("Bass")["bend"].map(&:first)
    expect(few.each_cons(2).map { |one, other| song.tempo.seconds_at(other) - song.tempo.seconds_at(one) }.min).to be >= 0.05 - 1e-6
    expect(few.size).to be_between(100, (20 * song.tempo.seconds_at(4 * BAR)) + 2)
  end

  # The one who reads knows only what is in the file: each value holds until the next.
  def off(row, events, places)
    law = core_law(row)
    places.map do |place, value|
      held = events.reverse.find { |event| event[1] <= place }[2]
      ((held / (row.bits == 7 ? 127.0 : 16_383)) - law.out(value)).abs
    end.max
  end

  def core_law(row) = KindSatchel::HandOver::ControlEvents::Law.of(row.address.parameter_id, row)

  [0.01, 0.03, 0.0].each do |error|
    it "stays within what is stated for each controller, on ticks and between, and within what was asked where steps allow it (#{error})" do
      ways = core::Score::Ways.new(core::Controllers.proposed(demo), error, nil, nil)
      parts = core::Score.new(demo, ways).parts
      tracks = mido(bytes_of(demo, error:))["tracks"]
      random = Random.new(5)
      ways.rows.each do |row|
        track = demo.track(core::Controllers.channel_track(demo, row.address)).name
        events = tracks.fetch(track)["cc"].select { |number, _, _| number == row.number }
        stated = parts.find { |part| part.name == track }.within.fetch(row.address.to_s)
        resolver = KindSatchel::Heard::Resolver.new(demo, row.address)
        pieces = resolver.pieces(0, demo.length_ticks)
        ticks = (Array.new(300) { random.rand(demo.length_ticks - 1) } + events.flat_map { |event| [event[1], [event[1] - 1, 0].max] }).uniq.sort
        jumps = pieces.each_cons(2).filter_map { |one, two| one.to.floor if one.to != one.to.floor && (one.at(one.to) - two.at(two.from)).abs > 1e-6 }
        places = ticks.flat_map { |tick| jumps.include?(tick) || resolver.scale.steps ? [tick] : [tick, tick + 0.7] }
        expect(off(row, events, places.map { |place| [place, pieces.bsearch { |piece| piece.to > place }.at(place)] })).to be <= stated + 1e-9
        steep = stated > [error, 0.5 / 127].max + core::Course::FINE
        expect(steep).to be(false), "#{row.address}: #{stated}" unless error.zero?
      end
    end
  end

  it "keep a true centre of pans: 64 of 127, 8192 of 14 bits" do
    song = small_song(lanes: [envelope([0, 0.1], [BAR, 0.5], [2 * BAR, 0.5], [3 * BAR, 0.9], target: "bass/channel/pan")])
    { 7 => [[10, 64]], 14 => [[10, 64], [42, 0]] }.each do |bits, wanted|
      rows = [core::Controllers::Row.new(address: address("bass/channel/pan"), number: 10, bits:)]
      events = mido(bytes_of(song, rows:, error: 0.02))["tracks"].fetch("Bass")["cc"]
      centre = wanted.map { |number, _| events.select { |event| event[0] == number && event[1] <= (1.5 * BAR) }.last.values_at(0, 2) }
      expect(centre).to eq wanted
    end
  end

  # Standard MIDI Files 1.0, its table of variable-length quantities (from memory of the published table).
  it "write variable-length quantities as the standard's own table has them" do
    { 0x40 => "40", 0x7F => "7f", 0x80 => "8100", 0x2000 => "c000", 0x3FFF => "ff7f", 0x4000 => "818000", 0x100000 => "c08000", 0x1FFFFF => "ffff7f",
      0x200000 => "81808000", 0x8000000 => "c0808000" }.each do |number, hex|
      score = Struct.new(:length_ticks).new(0)
      part = core::Score::Part.new("x", 1, [], [], [], [core::Score::Control.new(7, [number], [5])])
      expect(KindSatchel::Formats::MidiWriter.new(score).track(part).byteslice(13..).unpack1("H*")).to start_with "#{hex}b00705"
    end
  end

  it "come back in: what was written is what is read, moves within what was stated" do
    song = small_song(clip: [envelope([0, 0.2], [BAR, 0.9]), envelope([0, 0.7], [2 * BAR, 0.1], target: "bass/channel/volume", id: "v"),
                             envelope([0, 0.1], [BAR, 0.8], target: "bass/synth/sub", id: "s")])
    alone = core::OneClip.of(song, song.clips.keys.first)
    back = KindSatchel::Formats::MidiSong.new(MidiFile.score(bytes_of(alone)), "Back").song
    clip = back.clips.values.first
    expect(clip.notes.map { |note| [note.tick, note.length_ticks, note.pitch] }).to eq(alone.clips.values.first.notes.map { |note|
      [note.tick, note.length_ticks, note.pitch]
    })
    track = back.tracks.first
    %w[synth/cutoff channel/volume synth/sub].each do |name|
      there = "#{track.id}/#{name.sub('synth', 'instrument')}"
      (0...alone.length_ticks).step(311) do |tick|
        expect(heard(back, there, tick)).to be_within(0.02).of([heard(alone, "bass/#{name}", tick), name.end_with?("volume") ? Math.sqrt(0.5) : 1].min)
      end
    end
  end
end
