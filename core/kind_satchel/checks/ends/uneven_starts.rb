# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Fades whose start is a hair off what holds before; see {Checks::UnevenStarts}.
      module UnevenStarts
        module_function

        def title = "A fade that does not start level"
        def meaning = "The stretch before the fade drifts a little."

        def of(song)
          song.directory.envelopes.each_value.flat_map do |home|
            Checks::UnevenStarts.in(home.envelope).map { |place| found(song, home, place) }
          end
        end

        def found(song, home, place)
          id, tick = home.envelope.id, home.envelope.points[place].tick
          End.new(nil, "#{id} #{tick}", "A fade of #{Words.envelope(song, home)} starts a hair off the value before it.",
                  { "envelope_id" => id, "address" => home.envelope.target.to_s, **(home.track ? { "from_tick" => tick } : {}) },
                  [Fix.new("Make it level", "level_points", { "envelope_id" => id, "runs" => [[place, place]], "to" => "before" })])
        end
        private_class_method :found
      end
    end
  end
end
