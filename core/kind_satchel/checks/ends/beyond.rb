# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Points past the end of what a clip repeats.
      module Beyond
        module_function

        def title = "Points beyond the material"
        def meaning = "They lie past the end of the loop, where nobody hears them."

        def of(song)
          song.directory.envelopes.each_value.filter_map { |home| found(song, home) if home.clip && home.envelope.clock != "once" }
        end

        def found(song, home)
          envelope = home.envelope
          length = envelope.clock == "own_length" ? envelope.own_length_ticks : home.clip.length_ticks
          first = envelope.points.index { |point| point.tick > length } or return
          count = envelope.points.size - first
          what = count == 1 ? "A point" : "#{count} points"
          End.new(nil, envelope.id, "#{what} of #{Words.envelope(song, home)} #{count == 1 ? 'lies' : 'lie'} past its end.",
                  { "envelope_id" => envelope.id, "address" => envelope.target.to_s },
                  [Fix.new("Crop it to the loop", "crop_envelope", { "envelope_id" => envelope.id })])
        end
        private_class_method :found
      end
    end
  end
end
