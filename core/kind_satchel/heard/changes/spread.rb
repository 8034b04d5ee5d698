# frozen_string_literal: true

module KindSatchel
  module Heard
    class Changes
      # From settings of moves on to what the moves move, and from macros to what they drive. A depth, a limit or a
      # wave changes the same stretches; a rate all from there to the end of every run that reaches past it.
      class Spread
        # @param song [Song] one of the two
        def initialize(song)
          @song = song
        end

        # @param address [Address]
        # @param stretches [Array<Array(Integer, Integer)>] where it may differ
        # @return [Array<Array(Address, Array<Array(Integer, Integer)>)>] where others may, for that
        def on(address, stretches)
          return on_clock(stretches) if address.song?
          return @song.directory.drives_of(address).map { |drive| [drive.target, stretches] } unless address.setting?

          home = @song.directory.envelopes[address.device_id]
          return [] unless home&.envelope&.acts? && Settings.names(home.envelope).include?(address.parameter_id)

          rate = address.parameter_id == "rate"
          return [[home.envelope.target, stretches.map { |from, to| [from, rate ? ALWAYS[1] : to] }]] if home.track

          [[home.envelope.target, regions(home).flat_map do |region|
            stretches.filter_map { |stretch| in_region(home, region, stretch, rate) }
          end]]
        end

        # Whether a rate hangs on a parameter, or it is one.
        def rate?(address)
          return false unless address.setting? || @song.directory.drives_of(address).any?

          [address, *Needs.new(@song).needing(address)].any? { |one| one.setting? && one.parameter_id == "rate" }
        end

        private

        # What goes by the clock, from where that differs; in a region all of it, whose run may begin before.
        def on_clock(stretches)
          from = stretches.map(&:first).min or return []
          free = @song.directory.envelopes.each_value.select do |home|
            home.envelope.lfo? && home.envelope.source.free? && home.envelope.acts?
          end
          free.map do |home|
            [home.envelope.target, if home.track
                                     [[from, ALWAYS[1]]]
                                   else
                                     regions(home).map { |region| [region.start_tick, region.end_tick] }
                                   end]
          end
        end

        def regions(home) = @song.directory.regions_of_clip(home.clip.id).map(&:region).reject(&:muted)

        def in_region(home, region, (from, to), rate)
          from = rate && from <= 0 ? region.start_tick : [from, region.start_tick].max
          to = rate ? run_end(home, region, to) : [to, region.end_tick].min
          [from, to] if to > from
        end

        # The end of the run in which a tick lies, in the region or before it.
        def run_end(home, region, tick)
          zero = region.start_tick - region.offset_ticks
          return zero if tick <= zero && tick.positive?

          pass = home.envelope.clock_rules.pass_ticks(region, home.clip, home.envelope) or return region.end_tick
          [zero + (([tick - zero, 1].max / pass.to_f).ceil * pass), region.end_tick].min
        end
      end
    end
  end
end
