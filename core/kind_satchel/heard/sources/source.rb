# frozen_string_literal: true

module KindSatchel
  module Heard
    # Who acts: the envelope, and the region it sounds in (nil for a lane). `turn` tells who overrules whom among
    # those that set: the later one.
    Source = Struct.new(:kind, :envelope, :region, :clip, :turn) do
      # The span that a run of it covers is told by its clock; a lane has one run from the start of the song on.
      # @param tick [Integer] in its region
      # @return [Clocks::Run]
      def run_at(tick)
        if region
          Clocks.enum_for(:each_run, region, clip, envelope, tick,
                          tick + 1).first
        else
          Clocks::Run.new(0, tick, tick + 1)
        end
      end

      # Where the envelope stands at a song tick, in its own time.
      def position(tick) = region ? Clocks.position(region, clip, envelope, tick) : tick
    end
  end
end
