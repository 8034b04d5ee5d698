# frozen_string_literal: true

# What devices there are, and what their scales mark on an axis. For every scale a line chain of the engine's values
# over the knob's travel, so that a knob sounds while it is turned; what people read comes with answers about a song.
module Catalogue
  # How far that chain may stray, as a share of the travel.
  TOLERANCE = 0.00005

  module_function

  # @return [String] the record, made once
  def json = @json ||= JSON.generate(to_record).freeze

  # @return [Hash] device types, scales, shapes, roles and clocks, as the page needs them
  def to_record
    scales = {}
    devices = KindSatchel::Devices::TYPES.to_h { |id, type| [id, device(type, scales)] }
    send = parameter(KindSatchel::Devices::SEND, scales)
    { "devices" => devices, "settings" => settings(scales),
      "tempo" => parameter(KindSatchel::Owners::OfSong::TEMPO, scales),
      "send" => send, "send_prefix" => KindSatchel::Devices::SEND_PREFIX, "scales" => scales.values,
      "amount_marks" => amount_marks, "shapes" => KindSatchel::Shapes::ALL.ids, "roles" => KindSatchel::Roles::ALL.ids,
      "clocks" => KindSatchel::Clocks::ALL.ids, "hues" => KindSatchel::Track::HUES, "track_kinds" => track_kinds,
      "shortest_ticks" => KindSatchel::Timing::SHORTEST_TICKS, "master_only" => KindSatchel::Devices::MASTER_ONLY,
      "drum_sounds" => KindSatchel::Devices::DRUM_SOUNDS }
  end

  # Of moves; the limits of what shifts run over other amounts.
  def settings(scales)
    fixed = KindSatchel::Settings::FIXED.transform_values { |entry| parameter(entry, scales) }
    limits = KindSatchel::Settings::LIMITS.keys.to_h { |name| [name, limit(name, KindSatchel::Roles::Set, scales)] }
    shifts = KindSatchel::Settings::LIMITS.keys.to_h do |name|
      ["#{name}-shift", limit(name, KindSatchel::Roles::Shift, scales)]
    end
    { **fixed, "rate-free" => parameter(KindSatchel::Settings::FREE_RATE, scales), **limits, **shifts }
  end

  # @param name [String] of a setting of moves
  # @param rules [#id] the role whose amounts it limits
  def limit(name, rules, scales)
    scale = KindSatchel::Scales::Amount.new(rules:, scale: KindSatchel::Settings::DEPTH.scale)
    title, default = KindSatchel::Settings::TITLES.fetch(name), KindSatchel::Settings::LIMITS.fetch(name)[1]
    parameter(KindSatchel::Settings::DEPTH.with(id: name, name: title, scale:, default:), scales)
  end

  def track_kinds
    KindSatchel::Track::KINDS.to_h { |kind| [kind, { "holds" => KindSatchel::Track::HOLDS.fetch(kind, []) }] }
  end

  def device(type, scales)
    { "name" => type.name, "role" => type.role, "plays" => type.plays, "parts" => type.parts, "samples" => type.samples,
      "parameters" => type.parameters.values.map { |entry| parameter(entry, scales) } }
  end

  def parameter(entry, scales)
    scales[entry.scale] ||= scale(entry.scale, scales.size)
    { "id" => entry.id, "name" => entry.name, "scale" => scales[entry.scale]["index"], "default" => entry.default,
      "automatable" => entry.automatable, "reason" => entry.reason }
  end

  def scale(scale, index)
    marks = KindSatchel::Marks.of(scale).map { |value| [value.round(5), scale.text(value)] }
    { "index" => index, "origin" => scale.origin, "steps" => scale.steps, "set_only" => scale.set_only?,
      "gain" => scale.gain?,
      "unit" => scale.unit.word, "marks" => marks, "engine" => engine(scale) }
  end

  # Value, engine's value, value, engine's value, ... Steps and switches have a pair for each step.
  def engine(scale)
    places = if scale.steps
               (0..scale.steps).map { |i| i.fdiv(scale.steps) }
             else
               [0.0, *scale.breaks(0.0, 1.0, TOLERANCE), 1.0]
             end
    places.flat_map { |value| [value.round(9), scale.engine(value).round(9)] }
  end

  # Values worth a line on the axis of a scaling and of the two kinds of shift.
  def amount_marks
    gain = KindSatchel::Devices::SEND.scale
    plain = KindSatchel::Scales::Linear.new(low: 0, high: 1, unit: KindSatchel::Units::PLAIN)
    { "scale" => quarters(KindSatchel::Roles::Scale, plain), "shift" => quarters(KindSatchel::Roles::Shift, plain),
      "shift_gain" => quarters(KindSatchel::Roles::Shift, gain) }
  end

  def quarters(rules, scale)
    low, high = rules.values.minmax
    (0..4).map { |i| low + ((high - low) * i / 4.0) }.map { |value| [value, rules.amount_text(scale, value)] }
  end

  private_class_method :track_kinds, :device, :parameter, :scale, :engine, :amount_marks, :quarters
end
