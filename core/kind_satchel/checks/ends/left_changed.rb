# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Lanes that leave their knob elsewhere than they found it. One that ends at the foot of its travel with the
      # song is a closing fade, and what the song's range repeats begins again; neither counts.
      module LeftChanged
        # Less than this is no difference, as a share of the travel.
        SAME = 0.001

        module_function

        def title = "A knob the song leaves changed"
        def meaning = "At the end it stands elsewhere than at the start, so a song played again begins with a jump."

        def find(song, _outside)
          song.tracks.flat_map(&:lanes).filter_map do |lane|
            next unless lane.role == "set" && lane.acts? && !lane.lfo? && song.parameter?(lane.target)

            if (lane.at(0) - lane.at(Timing::LAST_TICK)).abs > SAME && !closing?(song, lane) && !repeated?(song, lane)
              [lane.id]
            end
          end
        end

        # Whether it comes to its foot in the last bar, or later.
        def closing?(song, lane)
          last = lane.points.last.tick
          foot = song.parameter(lane.target).scale.origin.zero? && lane.at(Timing::LAST_TICK) <= SAME
          foot && last >= song.length_ticks - song.meters.at(last).bar_ticks
        end

        def repeated?(song, lane)
          range = song.range
          range.on && lane.points.first.tick >= range.start_tick && lane.points.last.tick <= range.end_tick
        end
        private_class_method :closing?, :repeated?

        def tell(song, id)
          lane = song.directory.envelope(id).envelope
          first, last = lane.at(0), lane.at(Timing::LAST_TICK)
          scale = song.parameter(lane.target).scale
          End.new("#{Words.envelope(song, id)} begins at #{scale.text(first)} and is left at #{scale.text(last)}.",
                  { "envelope_id" => id, "address" => lane.target.to_s, "from_tick" => lane.points.last.tick },
                  [Fix.new("Come back right after it", "add_point",
                           { "envelope_id" => id, "tick" => lane.points.last.tick + 1,
                             "value" => lane.value_of(first) })])
        end
      end
    end
  end
end
