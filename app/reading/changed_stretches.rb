# frozen_string_literal: true

# Where the curve of an envelope differs from what it was: one stretch of its own time, and the stretches of song time in
# which it is heard. While a hand drags a point of a long envelope, only these are computed and sent.
class ChangedStretches
  include KindSatchel

  # More stretches than this are not worth sending one by one.
  MOST = 48

  # @param before [KindSatchel::Song]
  # @param after [KindSatchel::Song]
  # @param envelope_id [String]
  def initialize(before, after, envelope_id)
    @before = before.directory.envelopes[envelope_id]
    @after = after.directory.envelopes[envelope_id]
    @song = after
  end

  # @return [Array(Integer, Integer), nil] from, to, in the envelope's own ticks; nil when it changed as a whole
  def own = @own ||= alike? ? differing(@before.envelope.points, @after.envelope.points) : nil

  # @return [Array<Array(Integer, Integer)>, nil] stretches of song time; nil when there are too many
  def heard
    return unless own

    list = @after.clip ? of_clip : [own]
    list.size <= MOST ? list.map { |from, to| [[from - 1, 0].max, to + 1] } : nil
  end

  private

  # Whether nothing but points differs.
  def alike?
    return false unless @before && @after && [@before, @after].none? { |home| home.envelope.points.empty? }

    @before.envelope.with(points: []) == @after.envelope.with(points: [])
  end

  # Bounds at points that stayed, with a segment that stayed between them and all that changed: so the curve is the
  # same on both sides of a bound, also where it jumps.
  def differing(old, new)
    first = alike_from(old, new) { |i| i }
    last = alike_from(old.drop(first), new.drop(first)) { |i| -1 - i }
    ticks = changed_ticks(old, new, first, last)
    before = old.first(first).map(&:tick).select { |tick| tick < ticks.min }.uniq
    after = new.last(last).map(&:tick).select { |tick| tick > ticks.max }.uniq
    [before[-2] || 0, after[1] || Timing::LAST_TICK]
  end

  # How many points are the same things, in the order a block gives.
  def alike_from(old, new)
    shared = [old.size, new.size].min
    (0...shared).find { |i| !old[yield(i)].equal?(new[yield(i)]) } || shared
  end

  def changed_ticks(old, new, first, last)
    ticks = [old, new].flat_map { |points| points[first...(points.size - last)] }.map(&:tick)
    ticks.empty? ? [new[first - 1].tick] : ticks
  end

  def of_clip
    from, to = own
    envelope, clip = @after.envelope, @after.clip
    @song.directory.regions_of_clip(clip.id).flat_map do |placed|
      Clocks::ALL.fetch(envelope.clock).runs(placed.region, clip, envelope).filter_map do |run|
        window = placed.region.window(run)
        window && part(window, run.rate, from, to)
      end
    end
  end

  # The part of a window in which a stretch of the envelope sounds; whole ticks around it.
  def part((start, finish, position), rate, from, to)
    low = [(start + ((from - position) / rate)).floor, start].max
    high = [(start + ((to - position) / rate)).ceil, finish].min
    [low, high] if high > low
  end
end
