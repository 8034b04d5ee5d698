# frozen_string_literal: true

# Random edits of every kind that random songs can bear.
class RandomEdits
  include KindSatchel

  def initialize(maker)
    @maker = maker
    @random = maker.random
  end

  # @return [Array<Array(Song, Song, String, Hash)>] before, after, name, inputs; what is refused is left out
  def steps(song, count)
    Array.new(count) do
      name, inputs = one(song)
      before = song
      song = Edits.apply(song, name, inputs.transform_keys(&:to_s)).song
      [before, song, name, inputs]
    rescue InvalidInput
      nil
    end.compact
  end

  private

  attr_reader :random

  def one(song)
    @song = song
    @envelope = song.directory.envelopes.values.sample(random:).envelope
    @some = { envelope_id: @envelope.id, runs: [[0, random.rand(@envelope.points.size.clamp(1..))]] }
    @region = song.directory.regions.values.sample(random:).region
    send(%i[of_points of_stretches of_regions of_envelopes of_song].sample(random:))
  end

  def from = @from ||= random.rand(7000)
  def region_ids(count) = @song.directory.regions.keys.sample(count, random:)

  def of_points
    [["add_point", { envelope_id: @envelope.id, tick: random.rand(8000), value: random.rand }],
     ["remove_points", { **@some, push: random.rand < 0.5 }], ["flip_points", @some], ["reverse_points", @some],
     ["shape_segments", { **@some, shape: { "shape" => "curved", "curve" => random.rand.round(3) } }],
     ["shift_points", { **@some, ticks: random.rand(-900..900), value: random.rand - 0.5, push: random.rand < 0.5 }],
     ["scale_points", { **@some, factor: random.rand * 2 }]].sample(random:)
  end

  def of_stretches
    stretch = { envelope_id: @envelope.id, from_tick: start = random.rand(7000), to_tick: start + 1 + random.rand(3000) }
    [["rub_out", { **stretch, push: random.rand < 0.5 }], ["duplicate_stretch", stretch],
     ["fade", { **stretch, direction: %w[in out].sample(random:) }]].sample(random:)
  end

  def of_regions
    [["move_regions", { region_ids: [@region.id], ticks: (random.rand(20) * 960) - @region.start_tick }],
     ["copy_regions", { region_ids: [@region.id], ticks: (random.rand(20) * 960) - @region.start_tick }],
     ["move_regions", { region_ids: region_ids(3), ticks: random.rand(-4..8) * 960, track_steps: random.rand(-1..1) }],
     ["fade_region", { region_id: @region.id, side: %w[in out].sample(random:), length: random.rand(4000) }],
     ["duplicate_regions", { region_ids: region_ids(2) }], ["mute_regions", { region_ids: region_ids(2), muted: random.rand < 0.5 }],
     ["separate_regions", { region_ids: region_ids(3), each: random.rand < 0.5 }], ["remove_regions", { region_ids: region_ids(1) }],
     ["swap_clip", { region_ids: [@region.id], clip_id: @song.clips.keys.sample(random:) }],
     ["split_region", { region_id: @region.id, tick: @region.start_tick + random.rand(@region.length_ticks) }],
     ["trim_region", { region_id: @region.id, end_tick: @region.start_tick + 1 + random.rand(9000) }]].sample(random:)
  end

  def of_envelopes
    address = RandomSongs::TARGETS.sample(random:)
    [["switch_envelope", { envelope_id: @envelope.id, on: random.rand < 0.5 }], ["set_knob", { address:, value: random.rand }], ["hand_back", {}],
     ["set_fader", { envelope_id: @envelope.id, fader: %w[follow trim].sample(random:) }],
     ["set_role", { envelope_id: @envelope.id, role: Roles::ALL.ids.sample(random:), keep: %w[heard drawing].sample(random:) }],
     ["set_clock", { envelope_id: @envelope.id, clock: Clocks::ALL.ids.sample(random:) }],
     ["set_range", { on: random.rand < 0.5 }], ["remove_envelope", { envelope_id: @envelope.id }],
     ["embed_envelope", { clip_id: @song.clips.keys.sample(random:), address:, role: Roles::ALL.ids.sample(random:) }],
     ["add_lane", { address:, role: Roles::ALL.ids.sample(random:) }],
     ["lay_out", { region_ids: region_ids(4) }],
     ["pack", { envelope_id: @envelope.id, from_tick: start = random.rand(20) * 960, to_tick: start + 7680 }]].sample(random:)
  end

  def of_song
    start = random.rand(20) * 960
    tracks = @song.tracks.map(&:id)
    [["set_points_follow", { on: random.rand < 0.7 }], ["delete_time", { from_tick: start, to_tick: start + ((1 + random.rand(4)) * 960) }],
     ["insert_time", { tick: start, length_ticks: (1 + random.rand(4)) * 960 }], ["duplicate_track", { track_id: "bass", moves: random.rand < 0.5 }],
     ["paste_time", { tick: start, over: random.rand < 0.5, stretch: stretch_of(random.rand(12) * 960) }],
     ["make_group", { track_ids: tracks.sample(2, random:) }], ["remove_track", { track_id: (tracks - ["bass"]).sample(random:) }],
     ["set_output", { track_ids: tracks.sample(1, random:), output: tracks.sample(random:) }],
     ["make_carrier", { start_tick: start, length_ticks: 3840 }],
     ["set_tempo", { tick: start, bpm: 60 + random.rand(100), shape: %w[hold straight].sample(random:) }]].sample(random:)
  end

  def stretch_of(start) = JSON.parse(JSON.generate(Transfer::SongStretch.of(@song, start, start + 7680).to_record))
end
