# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Moves that follow what does not sound as it did.
      module StaleFollowers
        module_function

        def title = "Made from something that has changed"
        def meaning = "The points still follow what sounded when they were made."

        def find(song, _outside)
          homes = song.directory.envelopes.each_value.select { |home| home.envelope.source.is_a?(Sources::Followed) }
          homes.select { |home| AsSounded.stale?(song, home) }.map { |home| [home.envelope.id] }
        end

        def tell(song, id)
          envelope = song.directory.envelope(id).envelope
          End.new("#{Words.envelope(song, id)} follows something that has changed since its points were made.",
                  { "envelope_id" => id, "address" => envelope.target.to_s },
                  [Fix.new("Again", "follow_level", { "envelope_id" => id })])
        end
      end
    end
  end
end
