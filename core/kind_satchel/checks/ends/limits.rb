# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # What is pushed beyond the travel of its knob.
      module Limits
        # Shorter than a sixteenth note is not told.
        LEAST_TICKS = Timing::PPQ / 4
        # In a song with more moves it takes too long, and is left out.
        MOST_MOVES = 1000

        module_function

        def title = "Pushed against a limit"
        def meaning = "Moves add up to more than the knob can do; there it stays at its end."

        def of(song)
          return [] if song.directory.envelopes.size > MOST_MOVES

          addresses = song.automated.select { |address| !song.parameter(address).scale.steps && summed?(song, address) }
          addresses.filter_map { |address| found(song, address) }
        end

        def summed?(song, address)
          song.directory.envelopes.each_value.any? { |home| home.envelope.target == address && home.envelope.role == "shift" && home.envelope.acts? }
        end

        def found(song, address)
          parts = beyond(song, address)
          ticks = parts.sum { |from, to| to - from }
          return if ticks < LEAST_TICKS

          beats = (ticks / Timing::PPQ.to_f).round(2)
          first = song.meters.text(parts[0][0].floor)
          End.new(nil, address.to_s, "#{Words.parameter(song, address)} is pushed against its limit for #{beats} beats, first at #{first}.",
                  { "address" => address.to_s, "from_tick" => parts[0][0].floor, "to_tick" => parts[-1][1].ceil }, [])
        end

        def beyond(song, address)
          Heard::Resolver.new(song, address).pieces(0, song.length_ticks).flat_map do |piece|
            next [] if piece.jet(piece.from, piece.to).then { |jet| jet.low >= -1e-9 && jet.high <= 1 + 1e-9 }

            Heard::Within.parts(piece).select { |arc| outside?(piece.raw((arc.from + arc.to) / 2.0)) }.map { |arc| [arc.from, arc.to] }
          end
        end

        def outside?(value) = value < -1e-9 || value > 1 + 1e-9
        private_class_method :summed?, :found, :beyond, :outside?
      end
    end
  end
end
