# frozen_string_literal: true

# What the sound engine plays of a stretch: events, and ramps by address, all in seconds from the song's start.
class Playback
  include KindSatchel

  # @param budget [KindSatchel::Heard::Budget, nil] ramps beyond it are left out
  def initialize(song, budget: nil)
    @song = song
    @budget = budget
  end

  # @param addresses [Array<Address>, nil] only these; nil for every one that sounds otherwise than its knob rests,
  #   with the events
  def stretch(from_tick, to_tick, addresses = nil)
    { "from_tick" => from_tick, "to_tick" => to_tick,
      "from_seconds" => @song.tempo.seconds_at(from_tick), "to_seconds" => @song.tempo.seconds_at(to_tick),
      "ramps" => ramps(addresses || @song.sounded, from_tick, to_tick),
      **(addresses ? {} : rest(from_tick, to_tick)) }
  end

  # What else plays besides ramps.
  def rest(from_tick, to_tick)
    { "events" => events(from_tick, to_tick), "gates" => gates(from_tick, to_tick),
      "steps" => steps(from_tick, to_tick),
      "beat" => rounded(Heard::Beat.flat(@song, from_tick, to_tick)), "beats" => beats(from_tick, to_tick) }
  end

  # When each beat falls, and 1 where a bar begins, else 0.
  def beats(from_tick, to_tick)
    @song.meters.beats(from_tick, to_tick).flat_map { |tick, bar| [@song.tempo.seconds_at(tick).round(6), bar ? 1 : 0] }
  end

  # @return [Array<Hash>] what sounds between two ticks, see {KindSatchel::Heard::Events}
  def events(from_tick, to_tick) = Heard::Events.new(@song).in_range(from_tick, to_tick)

  # The tick and second at the corners of the clock.
  def clock = @song.tempo.clock

  private

  def ramps(addresses, from, to)
    addresses = addresses.select { |address| @budget.room?(address, from, to) } if @budget
    addresses.to_h { |address| [address.to_s, rounded(ramp(Heard::Resolver.new(@song, address), from, to))] }
  end

  def ramp(resolver, from, to)
    clip_id = resolver.address.clip_id
    clip_id ? own_chain(clip_id).ramps(resolver, from, to) : Heard::Ramps.new(resolver).flat(from, to)
  end

  # When the own chains of clips are heard, by clip.
  def gates(from, to)
    @song.clips.each_value.select do |clip|
      clip.devices.any?
    end.to_h { |clip| [clip.id, rounded(own_chain(clip.id).gate(from, to))] }
  end

  # What step gates let through, by `owner/device`.
  def steps(from, to)
    @song.chains.flat_map do |owner|
      owner.devices.select { |device| device.type == "step-gate" }.map { |device| [owner, device] }
    end.to_h do |owner, device|
      ["#{owner.chain_id}/#{device.id}", rounded(Heard::StepGate.new(@song, owner, device).flat(from, to))]
    end
  end

  def own_chain(clip_id) = Heard::OwnChain.new(@song, @song.clip(clip_id))

  def rounded(flat) = flat.each_with_index.map { |number, i| number.round(i.even? ? 6 : 9) }
end
