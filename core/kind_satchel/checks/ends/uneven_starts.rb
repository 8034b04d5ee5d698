# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Fades whose start is a hair off what holds before; see {Checks::UnevenStarts}.
      module UnevenStarts
        module_function

        def title = "A fade that does not start level"
        def meaning = "The stretch before the fade drifts a little."

        def find(song, _outside)
          LooseEnds.by_owner(song, :uneven_starts) do |_, envelopes|
            envelopes.flat_map do |envelope|
              places(song, envelope).map { |place| ["#{envelope.id} #{envelope.points[place].tick}", place] }
            end
          end
        end

        def places(song, envelope) = Checks::UnevenStarts.in(envelope, song.parameter?(envelope.target)&.scale)
        private_class_method :places

        def tell(song, key, place)
          id = key[/\A\S+/]
          home = song.directory.envelope(id)
          End.new("A fade of #{Words.envelope(song, id)} starts a hair off the value before it.",
                  { "envelope_id" => id, "address" => home.envelope.target.to_s,
                    **(home.track ? { "from_tick" => home.envelope.points[place].tick } : {}) },
                  [Fix.new("Make it level", "level_points",
                           { "envelope_id" => id, "runs" => [[place, place]], "to" => "before" })])
        end
      end
    end
  end
end
