# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # A mixdown that goes beyond what a file of whole numbers can hold.
      module TooLoud
        # Below full scale afterwards.
        HEADROOM_DB = 0.3

        module_function

        def title = "Louder than full scale"
        def meaning = "In a file of 16 or 24 bits what goes beyond 0 dBFS is cut off."

        def outside? = true

        def find(_song, outside) = outside.peak_db && outside.peak_db > 0 ? [["peak", outside.peak_db]] : []

        def tell(song, _key, peak_db)
          master = song.tracks.last
          over = (peak_db + HEADROOM_DB).round(1)
          volume = Address.new(owner_id: master.id, device_id: "channel", parameter_id: "volume")
          End.new("The mixdown of the song as it stands reached #{format('%+.1f', peak_db)} dBFS.",
                  { "track_id" => master.id, "address" => volume.to_s },
                  [quieter(song, volume, over)].compact)
        end

        # Only a knob that nothing else sets makes all of it softer by as much.
        def quieter(song, volume, over)
          return if song.automated.include?(volume)

          scale = song.parameter(volume).scale
          down = scale.normalised(scale.natural(song.knob(volume)) - over)
          Fix.new("Turn the master down by #{over} dB", "set_knob", { "address" => volume.to_s, "value" => down })
        end
        private_class_method :quieter
      end
    end
  end
end
