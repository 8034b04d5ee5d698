# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Points past the end of what a clip repeats.
      module Beyond
        module_function

        def title = "Points beyond the material"
        def meaning = "They lie past the end of the loop, where nobody hears them."

        def find(song, _outside)
          song.directory.envelopes.each_value.filter_map do |home|
            envelope = home.envelope
            next if home.track || envelope.clock == "once" || !(last = envelope.points.last)

            length = envelope.clock == "own_length" ? envelope.own_length_ticks : home.clip.length_ticks
            [envelope.id, length] if last.tick > length
          end
        end

        def tell(song, id, length)
          envelope = song.directory.envelope(id).envelope
          count = envelope.points.count { |point| point.tick > length }
          what = count == 1 ? "A point" : "#{count} points"
          End.new("#{what} of #{Words.envelope(song, id)} #{count == 1 ? 'lies' : 'lie'} past its end.",
                  { "envelope_id" => id, "address" => envelope.target.to_s },
                  [Fix.new("Crop it to the loop", "crop_envelope", { "envelope_id" => id })])
        end
      end
    end
  end
end
