# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Two moves that set one parameter at once.
      module TwoSetters
        module_function

        def title = "Two set it at once"
        def meaning = "Only one of them is heard while both sound."

        # Regions of one track do not overlap, so one of the two is in a carrier.
        def find(song, _outside)
          carried = song.clips.each_value.select(&:carrier?).flat_map(&:envelopes).select do |one|
            one.role == "set" && one.acts?
          end
          carried.map(&:target).uniq.select { |address| song.parameter?(address) }.flat_map do |address|
            Conflicts.of(song, address).group_by do |one|
              [one.winner, one.loser].map { |source| source.envelope.id }
            end.map { |ids, list| [ids.join(" "), address, list.map(&:from).min, list.map(&:to).max] }
          end
        end

        def tell(song, key, address, from, to)
          ids = key.split
          winner, loser = ids.map { |id| Words.envelope(song, id) }
          End.new("#{winner} and #{loser} both set #{Words.parameter(song, address)}, " \
                  "#{Words.stretch(song, from, to)}; #{winner} is heard.",
                  { "address" => address.to_s, "envelope_id" => ids[1], "from_tick" => from, "to_tick" => to },
                  [Words.switch(ids[1], false, "Switch the other one off"),
                   Words.switch(ids[0], false, "Switch off the one that is heard")])
        end

        def entangled? = true
      end
    end
  end
end
