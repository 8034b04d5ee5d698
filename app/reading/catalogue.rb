# frozen_string_literal: true

# What devices there are, and how their values read: for every scale, the text of each of {STEPS} + 1 places of the
# knob's travel, so that the screen can read out a value at any moment without knowing the scale.
module Catalogue
  STEPS = 500

  module_function

  def json = @json ||= JSON.generate(to_record).freeze

  def to_record
    scales = {}
    devices = KindSatchel::Devices::TYPES.to_h { |id, type| [id, device(type, scales)] }
    send = parameter(KindSatchel::Devices::SEND, scales)
    { "devices" => devices, "send" => send, "send_prefix" => KindSatchel::Devices::SEND_PREFIX, "scales" => scales.values,
      "amounts" => amounts, "shapes" => KindSatchel::Shapes::ALL.ids, "roles" => KindSatchel::Roles::ALL.ids, "clocks" => KindSatchel::Clocks::ALL.ids,
      "track_kinds" => KindSatchel::Track::KINDS.to_h { |kind| [kind, { "holds" => KindSatchel::Track::HOLDS.fetch(kind, []) }] },
      "shortest_ticks" => KindSatchel::Timing::SHORTEST_TICKS, "drum_sounds" => KindSatchel::Devices::DRUM_SOUNDS }
  end

  def device(type, scales)
    { "name" => type.name, "role" => type.role, "parameters" => type.parameters.values.map { |entry| parameter(entry, scales) } }
  end

  def parameter(entry, scales)
    scales[entry.scale] ||= scale(entry.scale, scales.size)
    { "id" => entry.id, "name" => entry.name, "scale" => scales[entry.scale]["index"], "default" => entry.default,
      "automatable" => entry.automatable, "reason" => entry.reason }
  end

  def scale(scale, index)
    marks = KindSatchel::Marks.of(scale).map { |value| [value.round(5), scale.text(value)] }
    { "index" => index, "origin" => scale.origin, "steps" => scale.steps, "set_only" => scale.set_only?, "gain" => scale.gain?,
      "unit" => scale.unit.word, "marks" => marks, "texts" => places.map { |value| scale.text(value) }, "engine" => engine(scale) }
  end

  # The engine's value at the places of the travel; steps and switches have one for each step.
  def engine(scale) = (0..(scale.steps || STEPS)).map { |i| scale.engine(i.fdiv(scale.steps || STEPS)).round(7) }

  # The texts of a scaling and of the two kinds of shift, over their whole range.
  def amounts
    gain, plain = KindSatchel::Devices::SEND.scale, KindSatchel::Scales::Linear.new(low: 0, high: 1, unit: KindSatchel::Units::PLAIN)
    { "scale" => places.map { |value| KindSatchel::Roles::Scale.amount_text(plain, value) },
      "shift_gain" => places.map { |value| KindSatchel::Roles::Shift.amount_text(gain, (value * 2) - 1) },
      "shift" => places.map { |value| KindSatchel::Roles::Shift.amount_text(plain, (value * 2) - 1) } }
  end

  def places = (0..STEPS).map { |i| i.fdiv(STEPS) }

  private_class_method :device, :parameter, :scale, :engine, :amounts, :places
end
