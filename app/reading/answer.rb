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
  # @param listening [KindSatchel::Listening] moves that rest are not heard
  def initialize(before, after, patch, side, wants, listening: Listening::ALL)
    @before = before
    @after = after
    @listening = listening
    @heard_before, @heard_after = [before, after].map { |song| listening.at_rest(song) }
    @patch = patch
    @records = patch.transform_values { |pair| pair[side] }
    @old_records = patch.transform_values { |pair| pair[1 - side] }
    @wants = wants
    Heard::Evaluation.carry(before, after)
    Heard::Evaluation.carry(@heard_before, @heard_after) if listening.resting.any?
  end

  # For a change that was made: every changed part.
  def change
    Checks::LooseEnds::Limits.carry(@before, @after, changes.addresses)
    { "parts" => parts, "clock_from" => changes.clock_from, **drawing }
  end

  # For other tabs: what changed, how it is drawn, and where what is heard may differ (in song ticks, by address).
  def news
    stretches = affected.to_h { |address| [address.to_s, heard_changes.heard[address]] }
    { "parts" => parts, **drawing.except("heard", "patches", "conflicts"),
      "touched" => stretches, "clock_from" => changes.clock_from }
  end

  # For a change that is only being tried: of envelopes just the points that differ, of clips just the notes, of
  # curves just the stretches; what would take long is drawn by its bounds and not played: `coarse`. `patches` => {
  # "curves" => envelope id => [[from, to, corners]], "heard" => address => [[from, to, corners], ...] }
  def preview
    @budget = Heard::Budget.new(@heard_after)
    answer = tried
    { **answer, "coarse" => @budget.refused.map(&:to_s) }
  end

  # Addresses whose heard value may differ, and that name something.
  # @return [Array<Address>]
  def affected = @affected ||= heard_changes.addresses.select { |address| @after.parameter?(address) }

  # @return [Hash] which tracks are not heard, and which envelopes rest
  def listened = { "silent" => @listening.silent(@after), "rested" => @listening.rested(@after) }

  private

  def tried
    parts = { "parts" => Wire.parts(@after, tried_parts), "points" => touched_points, "notes" => touched_notes }
    stretches = only_points
    return { **parts, **drawing } unless stretches

    draw = drawn
    { **parts, "uneven" => draw.uneven(changed_envelopes), "curves" => {}, "heard" => {}, **draw.placed([]),
               "patches" => { "curves" => draw.curve_patches(stretches), "heard" => sounding.heard_patches(wanted) },
               **sound }
  end

  def parts = Wire.parts(@after, @records.map { |key, record| [*key, record] })

  def changes = @changes ||= Heard::Changes.between(@before, @after)

  # Those that are heard while moves rest.
  def heard_changes
    @heard_changes ||= @listening.resting.empty? ? changes : Heard::Changes.between(@heard_before, @heard_after)
  end

  # Of those on the screen, where they may differ.
  # @return [Hash{Address=>Array<Array(Integer, Integer)>}]
  def wanted
    texts = @wants.fetch("heard", [])
    here = affected.select { |address| texts.include?(address.to_s) }
    here.to_h { |address| [address, heard_changes.heard[address]] }
  end

  # Of envelopes only those that would be new, or differ in more than their points; clips that are there already
  # without their notes (see touched_notes).
  def tried_parts
    @records.filter_map do |(kind, id), record|
      next [kind, id, record && tried_clip(id, record)] if kind == "clip"
      next [kind, id, record] unless kind == "envelope"

      next if record.nil? || record["self"].nil? || just_points?(@old_records[[kind, id]], record)

      [kind, id, { **Records.envelope(record["self"]), **record.slice("owner", "place") }]
    end
  end

  def just_points?(old, new) = old && old["self"] && old["self"].with(points: []) == new["self"].with(points: [])

  def tried_clip(id, record)
    @before.clips[id] ? record.except("self").merge("notes" => []) : Records.clip(@after.clips[id])
  end

  # Clip id => [place, how many notes go there, the notes that come there], where notes differ: from the first that
  # does to the last.
  def touched_notes
    ids("clip").filter_map { |id| touched_in(id, *[@before, @after].map { |song| song.clips[id]&.notes }) }.to_h
  end

  def touched_in(id, old, new)
    return if old.nil? || new.nil? || old.equal?(new)

    shortest = [old.size, new.size].min
    first = (0...shortest).find { |i| !old[i].equal?(new[i]) } || shortest
    left = shortest - first
    last = (1..left).find { |i| !old[-i].equal?(new[-i]) } || (left + 1)
    came = new[first...(new.size - last + 1)]
    [id, [first, old.size - last + 1 - first, came.map { |note| Records.note(note) }]]
  end

  # Where the changed envelopes differ in their own time, when nothing but their points does; else nil.
  # @return [Hash{String=>Array(Integer, Integer)}, nil]
  def only_points
    return unless @records.keys.all? { |kind, _| kind == "envelope" } && settled?

    found = ids("envelope").to_h do |id|
      pair = [@before, @after].map { |song| song.directory.envelopes[id]&.envelope }
      [id, Heard::Changes::PointsChanged.between(*pair)]
    end
    found if found.values.all?
  end

  # Whether no setting of a move is drawn otherwise for it.
  def settled?
    moved = @after.directory.moved_settings
    changes.addresses.none?(&:setting?) && ids("envelope").none? { |id| moved.key?(id) }
  end

  def drawn = Drawing.new(@after, budget: @budget)

  # What is heard of it.
  def sounding = Drawing.new(@heard_after, budget: @budget)

  def drawing
    draw = drawn
    regions = changed_regions
    { "curves" => draw.curves(redrawn), "uneven" => draw.uneven(changed_envelopes),
      "meetings" => draw.meetings(changed_envelopes),
      **draw.placed(regions), "conflicts" => sounding.conflicts(wanted.keys.map(&:to_s)),
      **heard(sounding), **sound }
  end

  # Whole chains where all of it may differ or the song has another length, else only the stretches that may differ.
  def heard(draw)
    whole, parts = wanted.partition do |_, stretches|
      stretches.first[0].zero? && stretches.first[1] >= @after.length_ticks
    end
    whole, parts = resized? ? [on_screen, {}] : [whole.map { |address, _| address.to_s }, parts]
    { "heard" => draw.heard(whole), "patches" => { "curves" => {}, "heard" => draw.heard_patches(parts.to_h) } }
  end

  # A song of another length shows more or less of everything.
  def on_screen = @wants.fetch("heard", []).select { |text| @after.parameter?(Address.parse(text)) }

  def resized? = @before.length_ticks != @after.length_ticks || @before.range != @after.range

  def sound
    stretch = @wants["sound"] or return {}
    play = Playback.new(@heard_after, budget: @budget)
    sounded = @after.sounded | @heard_after.sounded
    { "sound" => play.stretch(stretch["from_tick"], stretch["to_tick"], affected & sounded) }
  end

  def ids(kind) = @records.keys.select { |key, _| key == kind }.map(&:last)

  def changed_envelopes = ids("envelope").filter_map { |id| @after.directory.envelopes[id]&.envelope }

  # Those that look different: the changed ones, and those whose settings may be heard otherwise.
  def redrawn
    settings = changes.addresses.select(&:setting?).filter_map do |address|
      @after.directory.envelopes[address.device_id]&.envelope
    end
    (changed_envelopes + settings).uniq(&:id)
  end

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

  def each_record(kind)
    [@records, @old_records].flat_map { |list| list.select { |(key, _), _| key == kind }.values.compact }
  end

  # Envelope id => [[place, tick, value, text, position], ...] of the points that are not what they were.
  def touched_points
    changed_envelopes.to_h do |envelope|
      old = @before.directory.envelopes[envelope.id]&.envelope&.points || []
      scale = @after.parameter?(envelope.target)&.scale
      list = new_points(old, envelope.points)
      in_words = scale && list.size <= MOST_TOLD
      [envelope.id, list.map do |point, i|
        in_words ? point_record(envelope, scale, point, i) : { "index" => i, **Records.point(point) }
      end]
    end
  end

  def new_points(old, points)
    return points.each_with_index.reject { |point, i| point.equal?(old[i]) } if old.size == points.size

    known = old.each_with_object({}.compare_by_identity) { |point, all| all[point] = true }
    points.each_with_index.reject { |point, _| known.key?(point) }
  end

  def point_record(envelope, scale, point, place)
    { "index" => place, "tick" => point.tick, "value" => point.value,
      "text" => envelope.role_rules.amount_text(scale, envelope.amount(point.value)),
      "position" => @after.meters_of(@after.directory.envelope(envelope.id).owner).text(point.tick),
      **Shapes.record(point.shape) }
  end
end
