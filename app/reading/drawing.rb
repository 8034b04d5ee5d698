# frozen_string_literal: true

# What the screen draws, from core values: flat number lists that need no rule to be drawn.
#
# - curves:  envelope id => [tick, value, tick, value, ...] in the envelope's own time
# - windows: region id => { envelope id => [[from, to, position at from, rate], ...] } in song ticks
# - passes:  region id => [[from, to, ticks into the clip], ...] of the material
# - heard:   address => [tick, value, ...] over the song
# - conflicts: address => [[from, to, winner, loser], ...], each of these two [envelope id, region id]
class Drawing
  include KindSatchel

  def initialize(song)
    @song = song
  end

  # Everything of some tracks: lanes, regions, their clips with notes and envelopes. `parts` holds the whole records
  # of the clips and envelopes.
  def tracks(track_ids)
    tracks = track_ids.uniq.map { |id| @song.track(id) }
    regions = tracks.flat_map(&:regions)
    clips = regions.map(&:clip_id).uniq.map { |id| @song.clip(id) }
    envelopes = tracks.flat_map(&:lanes) + clips.flat_map(&:envelopes)
    { "curves" => curves(envelopes), "uneven" => uneven(envelopes), "meetings" => meetings(envelopes),
      "windows" => windows(regions), "passes" => passes(regions), "parts" => tracks.flat_map { |track| lanes(track) } + clips.flat_map { |clip| whole(clip) } }
  end

  def curves(envelopes) = envelopes.to_h { |envelope| [envelope.id, flat(Heard::Outline.of_envelope(envelope))] }

  # Envelope id => places of points where a fade does not start level.
  def uneven(envelopes) = envelopes.to_h { |envelope| [envelope.id, Checks::UnevenStarts.in(envelope)] }

  # Envelope id => ticks after which it meets its loop again, for those with a length of their own.
  def meetings(envelopes)
    envelopes.to_h { |envelope| [envelope.id, meeting(envelope)] }.compact
  end

  def windows(regions)
    regions.to_h do |region|
      clip = @song.clip(region.clip_id)
      [region.id, clip.envelopes.to_h { |envelope| [envelope.id, runs(region, clip, envelope)] }]
    end
  end

  def passes(regions) = regions.to_h { |region| [region.id, region.passes(@song.clip(region.clip_id))] }

  # @param addresses [Array<String>]
  def heard(addresses)
    addresses.to_h do |text|
      pieces = Heard::Resolver.new(@song, Address.parse(text)).pieces(0, length)
      [text, flat(Heard::Outline.of_pieces(pieces))]
    end
  end

  # @param addresses [Array<String>]
  def conflicts(addresses)
    addresses.to_h { |text| [text, Checks::Conflicts.of(@song, Address.parse(text)).map { |one| [one.from, one.to, owner(one.winner), owner(one.loser)] }] }
  end

  # Just the stretches of curves that differ.
  # @param stretches [Hash{String=>ChangedStretches}] by envelope id
  def curve_patches(stretches)
    stretches.to_h do |id, stretch|
      from, to = stretch.own
      [id, [[from, to, flat(Heard::Outline.of_envelope(@song.directory.envelopes[id].envelope, from:, to:))]]]
    end
  end

  # Just some stretches of what is heard.
  # @param stretches [Array<Array(Integer, Integer)>] song ticks
  def heard_patches(addresses, stretches)
    addresses.to_h do |text|
      resolver = Heard::Resolver.new(@song, Address.parse(text))
      [text, stretches.map { |from, to| heard_patch(resolver, from, [to, length].min) }.compact]
    end
  end

  # What is heard at one tick, exactly: address => [normalised value, text].
  # @param addresses [Array<String>]
  def values(addresses, tick)
    addresses.to_h do |text|
      resolver = Heard::Resolver.new(@song, Address.parse(text))
      value = resolver.at(tick)
      [text, [value, resolver.parameter.text(value)]]
    end
  end

  private

  def owner(source) = [source.envelope.id, source.region.id]

  def meeting(envelope)
    clip = @song.directory.envelopes[envelope.id].clip
    clip && Clocks.meeting(clip, envelope)
  end

  def length = @length ||= [@song.length_ticks, @song.range.end_tick].max

  def heard_patch(resolver, from, to)
    [from, to, flat(Heard::Outline.of_pieces(resolver.pieces(from, to)))] if to > from
  end

  def lanes(track) = parts("track/#{track.id}", track.lanes)
  def whole(clip) = [["clip", clip.id, Records.clip(clip)], *parts("clip/#{clip.id}", clip.envelopes)]

  def parts(owner, envelopes)
    envelopes.map.with_index { |envelope, place| ["envelope", envelope.id, Parts.placed(Records.envelope(envelope), owner, place)] }
  end

  def runs(region, clip, envelope)
    Clocks::ALL.fetch(envelope.clock).runs(region, clip, envelope).filter_map do |run|
      window = region.window(run)
      [*window.map { |number| plain(number) }, plain(run.rate)] if window
    end
  end

  def plain(number) = number.is_a?(Rational) ? number.to_f : number

  def flat(corners)
    corners.flat_map { |tick, value| [tick.is_a?(Integer) ? tick : tick.to_f.round(2), value.round(5)] }
  end
end
