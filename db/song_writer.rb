# frozen_string_literal: true

# Writes songs in few words, for the demo and for new songs: values as people write them, places in bars and beats.
class SongWriter
  include KindSatchel

  QUARTER = Timing::PPQ

  def initialize(name:, bpm:, range:)
    @name = name
    @bpm = bpm
    @range = range
    @tracks = {}
    @clips = {}
    @effects = {}
    @next_id = 1
  end

  # @param devices [Hash] id => [type, values as text]
  def track(id, name, kind, hue, devices:, channel: {}, output: kind == "master" ? nil : "master")
    @tracks[id] = { name:, kind:, hue:, output:, devices: kind == "carrier" ? {} : devices.merge("channel" => ["channel", channel]), lanes: [], regions: [] }
  end

  # @param bars [Integer] length
  # @param audio [Array(String, Numeric), nil] sound and its tempo
  def clip(id, name, bars, notes: nil, audio: nil)
    audio &&= Audio.new(sound: audio[0], bpm: audio[1])
    kind = (audio && "audio") || (notes ? "notes" : "carrier")
    @clips[id] = Clip.new(id:, name:, kind:, length_ticks: bars * 4 * QUARTER, notes: (notes || []).sort_by { |n| [n.tick, n.pitch] }, audio:, envelopes: [])
  end

  # Effects of a clip's own.
  # @param devices [Hash] id => [type, values as text]
  def effects(clip_id, devices)
    @effects[clip_id] = devices
    clip = @clips.fetch(clip_id)
    @clips[clip_id] = clip.with(devices: devices.map { |id, (type, values)| device(id, type, values) })
  end

  # @param bar [Integer] counted from 1
  def region(track_id, clip_id, bar, bars)
    length = bars * 4 * QUARTER
    @tracks.fetch(track_id)[:regions] << Region.fresh(id: make_id("region"), clip_id:, start_tick: (bar - 1) * 4 * QUARTER, length_ticks: length)
  end

  # Embeds an envelope in a clip. Points are [beats, text or number, shape]; a number as shape bends. With `own_beats` it
  # has a length of its own.
  def move(clip_id, address, role, points, clock: "each_loop", own_beats: nil)
    clip = @clips.fetch(clip_id)
    made = envelope(address, role, points, clock)
    made = made.with(clock: "own_length", own_length_ticks: own_beats * QUARTER) if own_beats
    @clips[clip_id] = clip.with(envelopes: [*clip.envelopes, made])
  end

  def lane(address, points, on: true)
    envelope = envelope(address, "set", points, "once").with(on:)
    @tracks.fetch(address.split("/").first)[:lanes] << envelope
  end

  def song
    Song.new(name: @name, meters: Timing::Meters.steady(Timing::Meter.new(beats: 4, unit: 4)), bpm: @bpm,
             range: PlayRange.new(on: true, start_tick: @range[0], end_tick: @range[1]), points_follow: false, next_id: @next_id,
             tracks: @tracks.map { |id, fields| build_track(id, fields) }, clips: @clips)
  end

  private

  def make_id(word)
    @next_id += 1
    "#{word}-#{@next_id - 1}"
  end

  def envelope(address, role, points, clock)
    target = Address.parse(address)
    scale = scale_of(target)
    points = points.map do |beats, value, shape|
      Point.new(tick: (beats * QUARTER).round, value: value.is_a?(String) ? scale.parse(value) : value, shape: shape(shape))
    end
    Envelope.fresh(id: make_id("envelope"), target:, role:, clock:, points:)
  end

  def scale_of(target)
    devices = target.clip_id ? @effects.fetch(target.clip_id) : @tracks.fetch(target.owner_id)[:devices]
    type, = devices.fetch(target.device_id)
    parameter(type, target.parameter_id).scale
  end

  def parameter(type, id) = id.match?(/(?:\A|-)#{Devices::SEND_PREFIX}/o) ? Devices::SEND : Devices::TYPES.fetch(type).parameter(id)

  def device(id, type, values)
    Device.new(id:, type:, values: values.to_h { |key, text| [key, parameter(type, key).scale.parse(text)] }, held: {})
  end

  def shape(word) = word.is_a?(Symbol) ? Shapes.of({ "shape" => word.to_s }) : Shapes.of({ "shape" => "curved", "curve" => word })

  def build_track(id, fields)
    devices = fields[:devices].map { |device_id, (type, values)| device(device_id, type, values) }
    Track.new(id:, **fields.except(:devices), devices:, regions: fields[:regions].sort_by(&:start_tick))
  end
end
