# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Moves that are switched off.
      module Off
        module_function

        def title = "A move that is off"
        def meaning = "It is kept, and does nothing."

        def of(song)
          song.directory.envelopes.each_value.reject { |home| home.envelope.on }.map do |home|
            id = home.envelope.id
            End.new(nil, id, "#{Words.envelope(song, home)} is switched off.", { "envelope_id" => id, "address" => home.envelope.target.to_s },
                    [Words.switch(id, true, "Switch it on"), Words.remove(id)])
          end
        end
      end
    end
  end
end
