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
          LooseEnds.by_owner(song, :beyond) do |owner, envelopes|
            if owner.is_a?(Clip)
              envelopes.filter_map { |envelope| past(owner, envelope) }
            else
              []
            end
          end
        end

        def past(clip, envelope)
          return if envelope.clock == "once" || !(last = envelope.points.last)

          length = (envelope.own_length_ticks if envelope.clock == "own_length") || clip.length_ticks
          [envelope.id, length] if last.tick > length
        end
        private_class_method :past

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
