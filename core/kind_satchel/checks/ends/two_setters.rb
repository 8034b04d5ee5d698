# frozen_string_literal: true

module KindSatchel
  module Checks
    module LooseEnds
      # Two moves that set one parameter at once.
      module TwoSetters
        module_function

        def title = "Two set it at once"
        def meaning = "Only one of them is heard while both sound."

        def of(song)
          song.automated.flat_map do |address|
            Conflicts.of(song, address).group_by do |one|
              [one.winner, one.loser].map do |source|
                source.envelope.id
              end
            end.map { |ids, list| found(song, address, ids, list) }
          end
        end

        def found(song, address, ids, list)
          winner, loser = ids.map { |id| Words.envelope(song, song.directory.envelope(id)) }
          from, to = list.map(&:from).min, list.map(&:to).max
          where = Words.stretch(song, from, to)
          End.new(nil, ids.join(" "), "#{winner} and #{loser} both set #{Words.parameter(song, address)}, #{where}; #{winner} is heard.",
                  { "address" => address.to_s, "envelope_id" => ids[1], "from_tick" => from, "to_tick" => to },
                  [Words.switch(ids[1], false, "Switch the other one off"), Words.switch(ids[0], false, "Switch off the one that is heard")])
        end
        private_class_method :found
      end
    end
  end
end
