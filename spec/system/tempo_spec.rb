# frozen_string_literal: true

# The tempo as a parameter: two typed values over the range, a lane under the bar numbers, its sum.
RSpec.describe "The tempo in the studio" do
  include Hands

  let(:id) { plant }
  let(:tempo) { address("song/clock/tempo") }

  def song = snapshot(id).song
  def lane = song.lanes_of(tempo).first

  def glide(hand)
    return from_menu(hand, "Bars", "Tempo over the range") if hand[:size] == :desk

    open_panel(hand, "Song")
    press_button(hand, "Tempo over the range")
  end

  Hands::ALL.each do |name, hand|
    it "slows the last two bars to 72 by #{name}, is seen, dragged and explained, and undone", long: name == :finger do
      edit(id, "set_range", { on: true, start_tick: 30 * BAR, end_tick: 32 * BAR })
      open_song(id, size: hand[:size])
      feel_for(name)
      glide(hand)
      page.find_field("To").set("72").send_keys(:enter)
      press_button(hand, "Let it go")
      eventually(id) { lane }
      expect([28, 31, 33].map { |bar| song.tempo.bpm_at(bar * BAR).round(6) }).to eq [92, 82, 92]
      expect(song.tempo.seconds_at(32 * BAR) - song.tempo.seconds_at(30 * BAR)).to be_within(1e-9).of(60 * 8 * Math.log(92 / 72.0) / 20)
      close_sheet(hand)
      expect(page).to have_css("[aria-label='Tempo'] .solid-line")
      page.execute_script("document.querySelector('[data-testid=\"table\"]').scrollLeft = #{(30 * BAR * 0.027) - 40}")
      point = "[data-testid='point-#{lane.id}-1']"
      expect(page).to have_css(point)
      before = song.tempo.bpm_at(30 * BAR)
      hand[:drag].call(self, place_of(page.find(point, match: :first)), 0, -12)
      eventually(id) { |now| now.tempo.bpm_at(30 * BAR) > before + 20 }
      press_on(hand, page.find("[aria-label='Tempo'] .tempo-head"))
      at_hand("Value", hand)
      expect(page).to have_css("[data-testid='at-hand'] h2", text: "Tempo of the song")
      2.times { Server.edit_log.undo(id, revision(id)) }
      expect([song.lanes_of(tempo), song.tempo.bpm_at(31 * BAR)]).to eq [[], 92]
    end
  end

  it "has a lane that is made taller, and takes a move from the satchel" do
    edit(id, "glide_tempo", { from_tick: 4 * BAR, to_tick: 8 * BAR, from_bpm: 96, to_bpm: 72, shape: "straight" })
    edit(id, "set_range", { on: true, start_tick: 8 * BAR, end_tick: 10 * BAR })
    open_song(id)
    height = -> { page.evaluate_script("document.querySelector('.tempo-row').getBoundingClientRect().height").round }
    before = height.call
    drag([400, middle("edge-song/clock/tempo")[1]], 0, 80)
    expect(watch(height, ->(seen) { seen.last == before + 80 })).to be true
    show_panel("Satchel")
    card = page.find("[data-testid^='kept-']", text: "Plank gate")
    place = [bar_x(9) + 30, middle("ruler")[1] + 70]
    from = place_of(card)
    drag(from, place[0] - from[0], place[1] - from[1]) { expect(page).to have_css("[data-testid='carry']", text: "drop Plank gate") }
    eventually(id) { |now| now.tempo.bpm_at((8 * BAR) + 10) != now.tempo.bpm_at((8 * BAR) + 1000) }
    expect(lane.points.map(&:tick)).to include(8 * BAR, 10 * BAR)
  end

  it "says the clock's time at the pointer; the click and the loops go by it" do
    edit(id, "glide_tempo", { from_tick: 4 * BAR, to_tick: 8 * BAR, from_bpm: 96, to_bpm: 72, shape: "curved" })
    open_song(id)
    expect(page).to have_css("[data-testid='tempo-clock']", text: "0:10.43")
    mouse.move(x: bar_x(6), y: middle("ruler")[1] + 60)
    expect(page).to have_no_css("[data-testid='tempo-clock']", text: "0:10.43")
    beats = get_json("/api/songs/#{id}/playback?from_tick=15360&to_tick=30720")["beats"].each_slice(2).map(&:first)
    apart = beats.each_cons(2).map { |one, other| other - one }
    expect([apart, apart.first < 0.63, apart.last > 0.76]).to eq [apart.sort, true, true]
  end

  # How far the line at the playhead lies from what the position says, in seconds of playing at 92 BPM; some times, while it plays.
  def strays
    page.evaluate_async_script(<<~JS)
      const done = arguments[0], found = [], places = #{places.to_json};
      const look = () => {
        const shown = document.querySelector("#{places.keys.map { |id| "[data-testid='#{id}']" }.join(',')}");
        const [start, length] = places[shown.dataset.testid], region = shown.getBoundingClientRect();
        const line = document.querySelector("[data-testid='playhead'] .playhead").getBoundingClientRect();
        const [bar, beat, rest] = document.querySelector("[data-testid='position']").textContent.split(".").map(Number);
        const said = (bar - 1) * 3840 + (beat - 1) * 960 + rest;
        found.push((start + ((line.x - region.x) * length) / region.width - said) / 1472);
        if (found.length < 15) setTimeout(look, 130); else done(found);
      };
      look();
    JS
  end

  def places = song.tracks.flat_map(&:regions).to_h { |region| [region.id, [region.start_tick, region.length_ticks]] }

  it "has the playhead glide where playing is, also while the tempo moves, the view is zoomed, and the hand puts it elsewhere", :long do
    edit(id, "glide_tempo", { from_tick: 4 * BAR, to_tick: 6 * BAR, from_bpm: 110, to_bpm: 60, shape: "curved" })
    open_uncounted(id)
    press_ruler(bar_x(5) + 4)
    click_on "Play"
    expect(watch(-> { page.find("[data-testid='position']").text }, ->(seen) { seen.uniq.size > 2 })).to be true
    # A busy machine may be late with one or the other.
    near = satisfy { |seconds| seconds.count { |one| !one.between?(-0.2, 0.4) } <= 2 }
    expect(strays).to near
    press_keys("+")
    sleep 0.3
    expect(strays).to near
    press_ruler(500)
    sleep 0.3
    expect(strays).to near
  end
end
