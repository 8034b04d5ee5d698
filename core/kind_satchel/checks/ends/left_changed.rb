# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Lanes that leave their knob elsewhere than they found it.
      module LeftChanged
        SAME = 1e-6

        module_function

        def title = "A knob the song leaves changed"
        def meaning = "At the end it stands elsewhere than at the start, so a song played again begins with a jump."

        def of(song)
          song.directory.envelopes.each_value.filter_map do |home|
            lane = home.envelope
            next unless home.track && lane.role == "set" && lane.acts? && !lane.lfo? && song.parameter?(lane.target)

            first, last = lane.at(0), lane.at(Timing::LAST_TICK)
            found(song, home, first, last) if (first - last).abs > SAME
          end
        end

        def found(song, home, first, last)
          lane, scale = home.envelope, song.parameter(home.envelope.target).scale
          End.new(nil, lane.id, "#{Words.envelope(song, home)} begins at #{scale.text(first)} and is left at #{scale.text(last)}.",
                  { "envelope_id" => lane.id, "address" => lane.target.to_s, "from_tick" => lane.points.last.tick },
                  [Fix.new("Come back right after it", "add_point",
                           { "envelope_id" => lane.id, "tick" => lane.points.last.tick + 1, "value" => lane.value_of(first) })])
        end
        private_class_method :found
      end
    end
  end
end
