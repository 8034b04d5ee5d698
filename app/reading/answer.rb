# frozen_string_literal: true

# What a change brings back to whoever asked: the changed parts, and just the curves that look different now.
class Answer
  include KindSatchel

  # Beyond so many changed points no text is made for each.
  MOST_TOLD = 64

  # @param before [KindSatchel::Song]
  # @param after [KindSatchel::Song]
  # @param patch [Hash] see KindSatchel::Parts
  # @param side [Integer] which side of the patch is `after`
  # @param wants [Hash] "heard" => addresses on screen, "sound" => stretch of ticks being played
  def initialize(before, after, patch, side, wants)
    @before = before
    @after = after
    @patch = patch
    @records = patch.transform_values { |pair| pair[side] }
    @old_records = patch.transform_values { |pair| pair[1 - side] }
    @wants = wants
  end

  # For a change that was made: every changed part.
  def change = { "parts" => @records.map { |key, record| [*key, record] }, **drawing }

  # For a change that is only being tried: of envelopes just the points that differ, of curves just the stretches.
  # `patches` => { "curves" => envelope id => [[from, to, corners]], "heard" => address => [[from, to, corners], ...] }
  def preview
    parts = tried_parts
    stretches = only_envelopes
    return { "parts" => parts, "points" => touched_points, **drawing } unless stretches

    draw = Drawing.new(@after)
    heard = @wants.fetch("heard", []) & affected.map(&:to_s)
    { "parts" => parts, "points" => touched_points, "silent" => @after.silent, "uneven" => draw.uneven(changed_envelopes),
      "curves" => {}, "windows" => {}, "passes" => {}, "heard" => {},
      "patches" => { "curves" => draw.curve_patches(stretches), "heard" => draw.heard_patches(heard, stretches.values.flat_map(&:heard)) }, **sound }
  end

  # Addresses whose heard value may differ.
  # @return [Array<Address>]
  def affected
    @affected ||= (from_envelopes + from_clips + from_tracks).uniq.select { |address| known?(address) }
  end

  private

  # Of envelopes only those that would be new.
  def tried_parts
    @records.filter_map do |(kind, id), record|
      next [kind, id, record] unless kind == "envelope"

      [kind, id, { **Records.envelope(record["self"]), **record.slice("owner", "place") }] if record && @old_records[[kind, id]].nil? && record["self"]
    end
  end

  # Where the changed envelopes differ, when nothing else does and the places are known; else nil.
  # @return [Hash{String=>ChangedStretches}, nil]
  def only_envelopes
    return unless @records.keys.all? { |kind, _| kind == "envelope" }

    found = ids("envelope").to_h { |id| [id, ChangedStretches.new(@before, @after, id)] }
    found if found.values.all?(&:heard)
  end

  def drawing
    draw = Drawing.new(@after)
    regions = changed_regions
    heard = @wants.fetch("heard", []) & affected.map(&:to_s)
    { "curves" => draw.curves(changed_envelopes), "uneven" => draw.uneven(changed_envelopes), "meetings" => draw.meetings(changed_envelopes),
      "windows" => draw.windows(regions), "passes" => draw.passes(regions), "conflicts" => draw.conflicts(heard),
      "silent" => @after.silent, **heard(draw, heard), **sound }
  end

  # Whole chains, or only the stretches an edit of regions can be heard in.
  def heard(draw, addresses)
    stretches = addresses.empty? ? nil : TouchedTime.new(@before, @after, @patch).stretches
    return { "heard" => draw.heard(addresses) } unless stretches

    { "heard" => {}, "patches" => { "curves" => {}, "heard" => draw.heard_patches(addresses, stretches) } }
  end

  def sound
    stretch = @wants["sound"] or return {}
    { "sound" => Playback.new(@after).stretch(stretch["from_tick"], stretch["to_tick"], affected & @after.automated) }
  end

  def ids(kind) = @records.keys.select { |key, _| key == kind }.map(&:last)

  def changed_envelopes = ids("envelope").filter_map { |id| @after.directory.envelopes[id]&.envelope }

  # Regions that changed, and all regions of clips that changed or whose envelopes did.
  def changed_regions
    directory = @after.directory
    own = ids("region").filter_map { |id| @after.directory.regions[id]&.region }
    (own + touched_clips.flat_map { |id| directory.regions_of_clip(id).map(&:region) }).uniq(&:id)
  end

  def touched_clips
    owners = each_record("envelope").map { |record| record["owner"] }
    ids("clip") + owners.filter_map { |owner| owner.delete_prefix("clip/") if owner.start_with?("clip/") }
  end

  def each_record(kind) = [@records, @old_records].flat_map { |list| list.select { |(key, _), _| key == kind }.values.compact }

  def from_envelopes = each_record("envelope").map { |record| Address.parse(record["target"]) }

  def from_clips
    clips = ids("clip") + each_record("region").map { |record| record["clip_id"] }
    clips.uniq.flat_map { |id| [@before, @after].flat_map { |song| song.clips[id]&.envelopes || [] } }.map(&:target)
  end

  # Knobs that were turned, taken over or handed back.
  def from_tracks
    ids("track").flat_map do |id|
      pairs = [@before, @after].map { |song| values_of(song.directory.tracks[id]) }
      (pairs[0].keys | pairs[1].keys).flat_map { |device_id| turned(id, device_id, *pairs.map { |all| all[device_id] || {} }) }
    end
  end

  # By device, what a knob's own part in the heard value is.
  def values_of(track)
    track ? track.devices.to_h { |device| [device.id, { **device.values, **device.held.to_h { |id| [id, [:held, device.values[id]]] } }] } : {}
  end

  def turned(track_id, device_id, old, new)
    (old.keys | new.keys).reject { |key| old[key] == new[key] }
                         .map { |key| Address.new(track_id:, device_id:, parameter_id: key) }
  end

  def known?(address)
    @after.parameter(address)
  rescue NotFound
    false
  end

  # Envelope id => [[place, tick, value, text, position], ...] of the points that are not what they were.
  def touched_points
    changed_envelopes.to_h do |envelope|
      old = @before.directory.envelopes[envelope.id]&.envelope&.points || []
      scale = @after.parameter(envelope.target).scale
      list = new_points(old, envelope.points)
      told = list.size <= MOST_TOLD
      [envelope.id, list.map { |point, i| told ? point_record(envelope, scale, point, i) : { "index" => i, **Records.point(point) } }]
    end
  end

  def new_points(old, points)
    return points.each_with_index.reject { |point, i| point.equal?(old[i]) } if old.size == points.size

    known = old.each_with_object({}.compare_by_identity) { |point, all| all[point] = true }
    points.each_with_index.reject { |point, _| known.key?(point) }
  end

  def point_record(envelope, scale, point, place)
    { "index" => place, "tick" => point.tick, "value" => point.value, "text" => envelope.role_rules.amount_text(scale, point.value),
      "position" => @after.meter.text(point.tick), **Shapes.record(point.shape) }
  end
end
