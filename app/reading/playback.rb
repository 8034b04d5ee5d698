# frozen_string_literal: true

# What the sound engine plays of a stretch: events, and ramps by address, all in seconds from the song's start.
class Playback
  include KindSatchel

  def initialize(song)
    @song = song
  end

  # @param addresses [Array<Address>, nil] only these; nil for every automated one, with the events
  def stretch(from_tick, to_tick, addresses = nil)
    { "from_tick" => from_tick, "to_tick" => to_tick,
      "from_seconds" => @song.tempo.seconds_at(from_tick), "to_seconds" => @song.tempo.seconds_at(to_tick),
      "ramps" => ramps(addresses || @song.automated, from_tick, to_tick),
      **(addresses ? {} : { "events" => events(from_tick, to_tick) }) }
  end

  def events(from_tick, to_tick) = Heard::Events.new(@song).in_range(from_tick, to_tick)

  # The tick and second at the corners of the clock.
  def clock = @song.tempo.clock

  private

  def ramps(addresses, from, to)
    addresses.to_h do |address|
      flat = Heard::Ramps.new(Heard::Resolver.new(@song, address)).flat(from, to)
      [address.to_s, flat.each_with_index.map { |number, i| number.round(i.even? ? 6 : 7) }]
    end
  end
end
