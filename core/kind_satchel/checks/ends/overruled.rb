# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Lanes that something else overrules all through the song.
      module Overruled
        module_function

        def title = "A lane that is never heard"
        def meaning = "Clips or carriers set the same knob from the start to the end of the song."

        def of(song)
          song.directory.envelopes.each_value.filter_map do |home|
            lane = home.envelope
            next unless home.track && lane.role == "set" && lane.acts? && song.parameter?(lane.target) && covered?(song, lane)

            End.new(nil, lane.id, "#{Words.envelope(song, home)} is overruled all through the song.",
                    { "envelope_id" => lane.id, "address" => lane.target.to_s },
                    [Words.switch(lane.id, false, "Switch it off"), Words.remove(lane.id)])
          end
        end

        def covered?(song, lane)
          finish = song.length_ticks
          list = []
          Heard::Acting.new(song, lane.target).each_placed(0, finish) { |source| list << source.region if source.envelope.role == "set" }
          list.sort_by(&:start_tick).reduce(0) { |reached, region| region.start_tick <= reached ? [reached, region.end_tick].max : reached } >= finish
        end
        private_class_method :covered?
      end
    end
  end
end
