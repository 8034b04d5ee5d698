# frozen_string_literal: true

RSpec.describe KindSatchel::Conversion::RoleChange do
  let(:volume) { "bass/channel/volume" }

  def curve(some, target, ticks) = KindSatchel::Heard::Resolver.new(some, address(target)).at_each(ticks)
  def worst(before, after, target, ticks) = curve(before, target, ticks).zip(curve(after, target, ticks)).map { |a, b| (a - b).abs }.max
  def role(song, role, id: "e1") = apply(song, "set_role", envelope_id: id, role:)
  def told(result) = result.notices.first.text[/[\d.e-]+(?= %)/].to_f / 100

  it "converts against the lane that is really beneath, not the resting knob" do
    song = small_song(clip: [envelope([0, 0.2], [BAR, 0.9])], lanes: [envelope([0, 0.4], id: "l1")])
    shifted = role(song, "shift")
    expect(shifted.song.directory.envelope("e1").envelope.points.map { |point| point.value.round(9) }).to eq [-0.2, 0.5]
    expect([worst(song, shifted.song, CUTOFF, (0..(8 * BAR)).step(37).to_a), shifted.notices.map(&:code)]).to match [be < 1e-9, ["same"]]
    back = role(shifted.song, "set").song
    expect(worst(song, back, CUTOFF, (0..(8 * BAR)).step(37).to_a)).to be < 1e-9
  end

  it "converts at each place where what is beneath moves, other roles counted" do
    scale = envelope([0, 0.9], [BAR, 0.6], id: "e2", role: "scale")
    song = small_song(clip: [envelope([0, 0.5, 0.3], [BAR, 0.8]), scale], lanes: [envelope([0, 0.3], [2 * BAR, 0.5], id: "l1")])
    one = song.with_track(song.track("bass").with(regions: [song.track("bass").regions.first.with(length_ticks: BAR, span_ticks: BAR)]))
    shifted = role(one, "shift")
    measured = worst(one, shifted.song, CUTOFF, (BAR...(2 * BAR)).step(7).to_a)
    expect([measured, shifted.notices.map(&:code)]).to match [be < 0.001, ["same"]]
  end

  it "states the largest difference where it cannot be kept: other places, a scale above 100 %, a clamp" do
    moving = small_song(clip: [envelope([0, 0.2], [BAR, 0.9])], lanes: [envelope([0, 0.3], [8 * BAR, 0.7], id: "l1")])
    loud = small_song(clip: [envelope([0, 0.5], [BAR, 0.9])], knobs: { "cutoff" => "800 Hz" })
    [[moving, "shift"], [loud, "scale"]].each do |song, to|
      changed = role(song, to)
      measured = worst(song, changed.song, CUTOFF, (0..(8 * BAR)).step(11).to_a)
      expect([changed.notices.map(&:code), measured]).to match [["difference"], be > 0.01]
      expect(told(changed)).to be_between(measured - 1e-4, measured + 0.01)
    end
  end

  it "keeps gains too, in decibels" do
    song = small_song(clip: [envelope([0, 0.4], [BAR, 0.6], target: volume)])
    shifted = role(song, "shift")
    scaled = role(shifted.song, "scale")
    ticks = (BAR...(3 * BAR)).step(31).to_a
    expect([worst(song, shifted.song, volume, ticks), worst(song, scaled.song, volume, ticks)]).to all be < 0.002
  end
end
