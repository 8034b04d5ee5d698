# frozen_string_literal: true

module KindSatchel
  # A placement of a clip on a track, from `start_tick` for `length_ticks`. `offset_ticks` counts on into the
  # clip through its repeats; `span_ticks` is what a stretched clock fills. While it is `muted`, neither its material nor
  # its envelopes are heard.
  class Region < Value.of(:id, :clip_id, :start_tick, :length_ticks, :offset_ticks, :span_ticks, :looped, :muted)
    # A region that starts at the clip's start.
    def self.fresh(id:, clip_id:, start_tick:, length_ticks:)
      new(id:, clip_id:, start_tick:, length_ticks:, offset_ticks: 0, span_ticks: length_ticks, looped: true, muted: false)
    end

    def check
      whole!("/start_tick", start_tick)
      whole!("/length_ticks", length_ticks, 1)
      whole!("/offset_ticks", offset_ticks)
      whole!("/span_ticks", span_ticks, 1)
      whole!("/length_ticks", end_tick)
    end

    # @return [Integer] the first tick that no longer belongs to the region
    def end_tick = start_tick + length_ticks

    def cover?(tick) = tick >= start_tick && tick < end_tick

    # Cuts the region at a tick inside it; nothing heard changes.
    # @return [Array(Region, Region)] the halves; the right one takes `right_id`
    def split(tick, right_id)
      into = tick - start_tick
      [with(length_ticks: into),
       with(id: right_id, start_tick: tick, length_ticks: length_ticks - into, offset_ticks: offset_ticks + into)]
    end

    # Passes of the material that sound somewhere in from...to: [from_tick, to_tick, ticks into the clip at from_tick].
    def passes(clip, from = start_tick, to = end_tick)
      list = []
      Clocks.each_material_pass(self, clip, from, to) { |run| list << [run.from, run.to, run.from - run.zero] }
      list
    end

    # How often the material begins in it, the first time counted.
    def pass_count(pass_ticks) = ((offset_ticks + length_ticks - 1) / pass_ticks) - (offset_ticks / pass_ticks) + 1
  end
end
