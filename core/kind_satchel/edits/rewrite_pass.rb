# frozen_string_literal: true

module KindSatchel
  module Edits
    # Writes again what was played in a pass, from the samples that are kept beside the song: finer or coarser (`tolerance`), or other
    # laps of it. `parts` are stretches of laps in order of time; where two meet the value jumps, or glides over `join_ticks`. Without
    # `parts` all laps are written, later ones over earlier ones. The samples are filled in by the app (`kept`); a document by itself
    # holds none.
    module RewritePass
      extend Playing

      def self.call(song, input)
        kept = input[:kept] or raise InvalidInput.of("no_takes", "/pass", "What was played in this pass is no longer kept.")
        address = Moves.target(song, input[:address])
        takes = Perform::Takes.new(kept["laps"].to_h { |lap, strokes| [lap.to_i, Perform::Takes::Records.read(strokes)] })
        strokes = { address => parts(input) ? takes.chosen(parts(input), input.fetch(:join_ticks, 0)) : takes.all }
        pass = Perform::HandPass.new(restored(song, kept), strokes, into: kept["region_id"] ? "region" : kept["into"], region_id: kept["region_id"],
                                                                    role: kept["role"], tolerance: input[:tolerance] || kept["tolerance"])
        [pass.song, "write #{song.parameter(address).name} again", [measure(pass, address), *missed(pass)], written(pass, address)]
      end

      def self.parts(input)
        input[:parts]&.map { |part| Perform::Takes::Part.new(*part.values_at("lap", "from_tick", "to_tick")) }
      end

      # Every envelope as it was before the pass.
      def self.restored(song, kept)
        kept["bases"].reduce(song) do |now, (id, base)|
          next now unless now.directory.envelopes.key?(id)

          points = base["points"].map { |record| KindSatchel::Records.read_point(record) }
          Transfer::Lanes.change(now, id) { |envelope| envelope.with(points:) }
        end
      end

      def self.measure(pass, address)
        found = measured(pass, address)
        Tell.new("thinned", [], "#{Moves.count(found['points'], 'point')}, within #{format('%.3g', found['difference'] * 100)} % of what was played")
      end

      def self.written(pass, address)
        { "moves" => { address.to_s => { "bases" => pass.envelopes.fetch(address, []).to_h { |id| [id, base(pass.bases[id])] }, **measured(pass, address) } } }
      end
      private_class_method :parts, :restored, :measure, :written
    end
  end
end
