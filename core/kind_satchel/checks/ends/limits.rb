# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # What is pushed beyond the travel of its knob.
      module Limits
        # Shorter than a sixteenth note is not told.
        LEAST_TICKS = Timing::PPQ / 4
        # More parameters than these take too long, and are left out; so is a parameter that takes about this long to
        # be worked out.
        MOST_PARAMETERS = 400
        MOST_MS = 300.0

        module_function

        def title = "Pushed against a limit"
        def meaning = "Moves add up to more than the knob can do; there it stays at its end."

        def find(song, _outside)
          addresses = summed(song)
          return [] if addresses.size > MOST_PARAMETERS

          addresses.filter_map do |address|
            parts = known(song)[address] ||= beyond(song, address)
            ticks = parts.sum { |from, to| to - from }
            [address.to_s, ticks, parts[0][0].floor, parts[-1][1].ceil] if ticks >= LEAST_TICKS
          end
        end

        # Takes over from a song what was found of parameters that sound the same in the next one.
        # @param changed [Array<Address>] those that may not
        def carry(before, after, changed)
          return unless before.length_ticks == after.length_ticks

          known(after).merge!(known(before).except(*changed))
        end

        # What was looked for so far, by address.
        def known(song) = song.memo(:pushed) { {} }

        def tell(song, key, ticks, from, to)
          beats = (ticks / Timing::PPQ.to_f).round(2)
          End.new("#{Words.parameter(song, Address.parse(key))} is pushed against its limit for #{beats} beats, " \
                  "first at #{song.meters.text(from)}.",
                  { "address" => key, "from_tick" => from, "to_tick" => to }, [])
        end

        # What can be pushed beyond its travel: where something shifts, or a lane acts together with the knob.
        def summed(song)
          adding = LooseEnds.by_owner(song, :adding) do |_, list|
            list.select { |one| one.acts? && (one.role == "shift" || one.trims?) }.map(&:target)
          end
          adding.uniq.select { |address| (parameter = song.parameter?(address)) && !parameter.scale.steps }
        end

        def beyond(song, address)
          resolver = Heard::Resolver.new(song, address)
          return [] if Heard::Effort.new(song).of(address, 0, song.length_ticks) > MOST_MS

          resolver.pieces(0, song.length_ticks).flat_map do |piece|
            next [] if piece.jet(piece.from, piece.to).then { |jet| jet.low >= -1e-9 && jet.high <= 1 + 1e-9 }

            Heard::Within.parts(piece).select { |arc| outside?(piece.raw((arc.from + arc.to) / 2.0)) }.map do |arc|
              [arc.from, arc.to]
            end
          end
        end

        def outside?(value) = value < -1e-9 || value > 1 + 1e-9
        private_class_method :summed, :beyond, :outside?, :known
      end
    end
  end
end
