# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Lanes that something else overrules all through the song.
      module Overruled
        module_function

        def title = "A lane that is never heard"
        def meaning = "Clips or carriers set the same knob from the start to the end of the song."

        def find(song, _outside)
          song.tracks.flat_map(&:lanes).select do |lane|
            lane.role == "set" && lane.acts? && song.parameter?(lane.target) && covered?(song, lane)
          end.map { |lane| [lane.id] }
        end

        def tell(song, id)
          End.new("#{Words.envelope(song, id)} is overruled all through the song.",
                  { "envelope_id" => id, "address" => song.directory.envelope(id).envelope.target.to_s },
                  [Words.switch(id, false, "Switch it off"), Words.remove(id)])
        end

        def covered?(song, lane)
          finish = song.length_ticks
          list = []
          Heard::Acting.new(song, lane.target).each_placed(0, finish) do |source|
            list << source.region if source.envelope.role == "set"
          end
          list.sort_by(&:start_tick).reduce(0) do |reached, region|
            region.start_tick <= reached ? [reached, region.end_tick].max : reached
          end >= finish
        end
        private_class_method :covered?
      end
    end
  end
end
