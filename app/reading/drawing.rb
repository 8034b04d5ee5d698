# frozen_string_literal: true

# What the screen draws, from core values: flat number lists that need no rule to be drawn.
#
# - curves:  envelope id => [tick, value, tick, value, ...] in the envelope's own time
# - windows: region id => { envelope id => [[from, to, position at from, rate], ...] } in song ticks
# - marks:   region id => { envelope id => [tick, ...] } where an envelope of its own length and its loop begin
#   together again
# - passes:  region id => [[from, to, ticks into the clip], ...] of the material
# - heard:   address => [tick, value, ...] over the song
# - conflicts: address => [[from, to, winner, loser], ...], each of these two [envelope id, region id]
class Drawing
  include KindSatchel

  # How wide a whole song is drawn, in pixels, where nobody says; more corners than four to a pixel are thinned.
  WIDTH_PX = 16_384
  # The most windows and passes one drawing tells.
  MOST_WINDOWS = 1_000_000

  # What is drawn by its bounds alone is drawn no wider.
  COARSE_PX = 1280

  # @param width_px [Integer] how wide the whole song is drawn
  # @param budget [KindSatchel::Heard::Budget, nil] what is heard beyond it is drawn by its bounds
  def initialize(song, width_px: WIDTH_PX, budget: nil)
    @song = song
    @width_px = width_px
    @budget = budget
  end

  # Everything of some tracks: lanes, regions, their clips with notes and envelopes. `parts` holds the whole records
  # of the clips and envelopes.
  def tracks(track_ids)
    tracks = track_ids.uniq.map { |id| @song.track(id) }
    regions = tracks.flat_map(&:regions)
    clips = regions.map(&:clip_id).uniq.map { |id| @song.clip(id) }
    envelopes = tracks.flat_map(&:lanes) + clips.flat_map(&:envelopes)
    parts = tracks.flat_map { |track| lanes(track) } + clips.flat_map { |clip| whole(clip) }
    { "curves" => curves(envelopes), "uneven" => uneven(envelopes), "meetings" => meetings(envelopes),
      **placed(regions), "parts" => Wire.parts(@song, parts) }
  end

  # Where what regions hold lies in the song.
  def placed(regions) = { "windows" => windows(regions), "marks" => marks(regions), "passes" => passes(regions) }

  # One whose settings are moved as it is heard in the first region of its clip.
  def curves(envelopes) = envelopes.to_h { |envelope| [envelope.id, flat(curve(envelope))] }

  # Envelope id => places of points where a fade does not start level.
  def uneven(envelopes)
    envelopes.to_h do |envelope|
      [envelope.id, Checks::UnevenStarts.in(envelope, @song.parameter?(envelope.target)&.scale)]
    end
  end

  # Envelope id => ticks after which it meets its loop again, for those with a length of their own.
  def meetings(envelopes)
    envelopes.to_h { |envelope| [envelope.id, meeting(envelope)] }.compact
  end

  # @return [Hash{String=>Array}] of each region what of its clip's envelopes is drawn
  def windows(regions)
    @windows_told = 0
    regions.to_h do |region|
      clip = @song.clip(region.clip_id)
      [region.id, clip.envelopes.to_h { |envelope| [envelope.id, runs(region, clip, envelope)] }]
    end
  end

  # The most marks told of one envelope in one region.
  MOST_MARKS = 32

  # @return [Hash{String=>Array}] of each region where its material begins again
  def marks(regions)
    regions.to_h do |region|
      clip = @song.clip(region.clip_id)
      own = clip.envelopes.to_h { |envelope| [envelope.id, Clocks.meeting_ticks(region, clip, envelope, MOST_MARKS)] }
      [region.id, own.reject { |_, ticks| ticks.empty? }]
    end
  end

  # @return [Hash{String=>Array}] of each region its passes
  def passes(regions) = regions.to_h { |region| [region.id, region.passes(@song.clip(region.clip_id))] }

  # What names nothing has nothing to be heard: an empty list.
  # @param addresses [Array<String>]
  def heard(addresses)
    gone = addresses.reject { |text| known?(text) }
    gone.to_h { |text| [text, []] }.merge((addresses - gone).to_h do |text|
      [text, heard_patch(Heard::Resolver.new(@song, Address.parse(text)), 0, length)[2]]
    end)
  end

  # @param addresses [Array<String>]
  def conflicts(addresses)
    addresses.select { |text| known?(text) }.to_h do |text|
      conflicts = Checks::Conflicts.of(@song, Address.parse(text))
      [text, conflicts.map { |one| [one.from, one.to, owner(one.winner), owner(one.loser)] }]
    end
  end

  # Just the stretches of curves that differ.
  # @param stretches [Hash{String=>Array(Integer, Integer)}] by envelope id, in its own time
  def curve_patches(stretches)
    stretches.to_h do |id, (from, to)|
      [id, [[from, to, flat(Heard::Outline.of_envelope(@song.directory.envelopes[id].envelope, from:, to:))]]]
    end
  end

  # Just some stretches of what is heard.
  # @param stretches [Hash{Address=>Array<Array(Integer, Integer)>}] song ticks
  def heard_patches(stretches)
    stretches.to_h do |address, list|
      resolver = Heard::Resolver.new(@song, address)
      [address.to_s, list.map { |from, to| heard_patch(resolver, from, [to, length].min) if from < length }.compact]
    end
  end

  # What is heard at one tick, exactly: address => [normalised value, text].
  # @param addresses [Array<String>]
  def values(addresses, tick)
    addresses.select { |text| known?(text) }.to_h do |text|
      resolver = Heard::Resolver.new(@song, Address.parse(text))
      value = resolver.at(tick)
      [text, [value, resolver.parameter.text(value)]]
    end
  end

  # What an envelope has at a place of its own time, or an amount of it, or a value of a parameter: as a number, and
  # as people write it.
  # @param place [Hash] "envelope_id" with "tick", "value" (of a point) or "amount", or "address" with "value"
  # @return [Array(Float, String)]
  # @raise [InvalidInput, NotFound]
  def reading(place)
    return of_parameter(Address.parse(place["address"]), place) if place["address"]

    envelope = @song.directory.envelope(place["envelope_id"]).envelope
    given = place["amount"] || (place["value"] && envelope.amount(place["value"]))
    value = given || envelope.at(place["tick"]) || envelope.role_rules.neutral || @song.knob(envelope.target)
    written(@song.parameter(envelope.target).scale, envelope.role_rules, value)
  end

  # A value of its own, or what is heard at a tick.
  def of_parameter(address, place)
    written(@song.parameter(address).scale, Roles::Set,
            place["value"] || Heard::Resolver.new(@song, address).at(place["tick"]))
  end

  # What is set of a move.
  # @raise [NotFound]
  def settings(envelope_id)
    envelope = @song.directory.envelope(envelope_id).envelope
    scale = @song.parameter(envelope.target).scale
    limits = envelope.limits.map { |limit| written(scale, envelope.role_rules, limit) }
    ticks = envelope.lfo? ? envelope.source.cycle_ticks : 0
    { "low" => limits[0], "high" => limits[1], "depth" => [envelope.depth, Units::PERCENT.text(envelope.depth * 100)],
      "rate" => [ticks, envelope.lfo? ? envelope.source.rate_text : ""] }
  end

  private

  def curve(envelope) = live(envelope) || (envelope.lfo? ? wave(envelope) : Heard::Outline.of_envelope(envelope))

  # @return [Array<Numeric>, nil] nil where nothing moves its settings
  def live(envelope)
    home = @song.directory.envelope(envelope.id)
    region = home.clip && @song.directory.regions_of_clip(home.clip.id).first&.region
    return if home.clip && region.nil?

    return unless Heard::LiveMove.of(@song, envelope, region)

    to = [Clocks.extent(@song, home), length].max
    coarse = !(@budget.nil? || @budget.room_for?(envelope, region, region&.start_tick || 0, region&.end_tick || to))
    flat = Heard::Outline.of_live(@song, home, region, to, coarse:, pixel: length.fdiv(@width_px))
    Heard::Crowd.thinned(flat, 0, flat[-2] || 1, @width_px)
  end

  # As far as it can be heard, with no more corners than there are pixels for.
  def wave(envelope)
    to = [Clocks.extent(@song, @song.directory.envelope(envelope.id)), length].max
    if to / envelope.source.cycle_ticks <= @width_px
      return Heard::Crowd.thinned(Heard::Outline.of_envelope(envelope, to:), 0, to,
                                  @width_px)
    end

    low, high = envelope.source.swing(envelope)
    [0, low, 0, high, to, high, to, low]
  end

  def written(scale, rules, value) = [value, rules.amount_text(scale, value)]

  def known?(text) = @song.parameter?(Address.parse(text))

  def owner(source) = [source.envelope.id, source.region.id]

  def meeting(envelope)
    clip = @song.directory.envelopes[envelope.id].clip
    clip && Clocks.meeting(clip, envelope)
  end

  def length = @length ||= [@song.length_ticks, @song.range.end_tick].max

  def heard_patch(resolver, from, to)
    return unless to > from

    width_px = (@width_px * (to - from).fdiv(length)).ceil
    coarse = !(@budget.nil? || @budget.room?(resolver.address, from, to))
    return [from, to, flat(Heard::Crowd.new(resolver).band(from, to, [width_px, COARSE_PX].min))] if coarse

    [from, to, flat(Heard::Outline.heard(resolver, from, to, width_px:))]
  end

  def lanes(track) = parts("track/#{track.id}", track.lanes)
  def whole(clip) = [["clip", clip.id, Records.clip(clip)], *parts("clip/#{clip.id}", clip.envelopes)]

  def parts(owner, envelopes)
    envelopes.map.with_index do |envelope, place|
      ["envelope", envelope.id, Parts.placed(Records.envelope(envelope), owner, place)]
    end
  end

  def runs(region, clip, envelope)
    list = []
    Clocks.each_run(region, clip, envelope, region.start_tick, region.end_tick) do |run|
      list << [run.from, run.to, run.position(run.from), run.pace || 1]
    end
    @windows_told += list.size
    return list if @windows_told <= MOST_WINDOWS

    raise InvalidInput.of("too_many_pieces", "/tracks",
                          "More than #{MOST_WINDOWS} repeats lie on these tracks; ask for fewer tracks.")
  end

  def flat(corners)
    corners.each_slice(2).flat_map { |tick, value| [tick.is_a?(Integer) ? tick : tick.to_f.round(2), value.round(5)] }
  end
end
