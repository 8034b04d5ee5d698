# frozen_string_literal: true

module KindSatchel
  # A placement of a clip on a track, from `start_tick` for `length_ticks`. `offset_ticks` counts on into the clip
  # through its repeats; `span_ticks` is what a stretched clock fills. While it is `muted`, neither its material nor
  # its envelopes are heard.
  #
  # `phases` tells of LFOs of the clip whose rate is moved where they stand, by their ids: [ticks into the clip as the
  # offset counts them, phase with whole cycles]. In the run that holds that place the phase counts from there. Bars
  # that are put in or taken out before it write them, so that what follows sounds as before; of an LFO that is not
  # there they say nothing.
  class Region < Value.of(:id, :clip_id, :start_tick, :length_ticks, :offset_ticks, :span_ticks, :looped, :muted,
                          :phases)
    NO_PHASES = {}.freeze

    def initialize(phases: NO_PHASES, **fields) = super

    # A region that starts at the clip's start.
    def self.fresh(id:, clip_id:, start_tick:, length_ticks:)
      new(id:, clip_id:, start_tick:, length_ticks:, offset_ticks: 0, span_ticks: length_ticks, looped: true,
          muted: false)
    end

    def check
      whole!("/start_tick", start_tick)
      whole!("/length_ticks", length_ticks, 1)
      whole!("/offset_ticks", offset_ticks)
      whole!("/span_ticks", span_ticks, 1)
      whole!("/length_ticks", end_tick)
      phases.each do |id, (place, phase)|
        whole!("/phases/#{id}/0", place)
        number!("/phases/#{id}/1", phase, Sources::Lfo::PHASES)
      end
    end

    # The region with a copy of its clip, whose moves come in the same order under ids of their own.
    # @param clip [Clip]
    # @param copy [Clip]
    def onto(clip, copy)
      ids = clip.envelopes.map(&:id).zip(copy.envelopes.map(&:id)).to_h
      with(clip_id: copy.id, phases: phases.filter_map { |id, place| [ids[id], place] if ids[id] }.to_h)
    end

    # The region so much further into its clip.
    def onward(ticks)
      with(offset_ticks: offset_ticks + ticks, phases: phases.transform_values do |place, phase|
        [place + ticks, phase]
      end)
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
