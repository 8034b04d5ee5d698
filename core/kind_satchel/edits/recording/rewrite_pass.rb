# frozen_string_literal: true

module KindSatchel
  module Edits
    # Writes again what was played in a pass, from the samples that are kept beside the song: finer or coarser
    # (`tolerance`), or other laps of it; or elsewhere (`into`), as another role (`role`), or into clips of their own
    # for the regions that were played (`separate`): what the pass made where it was goes then, and everything there
    # is as it was before. `parts` are stretches of laps in order of time; where two laps meet the value jumps, or
    # glides over `join_ticks`. Without `parts` all laps are written, later ones over earlier ones. The samples are
    # filled in by the app (`kept`); a document by itself holds none.
    module RewritePass
      extend Playing

      # A smaller difference is none.
      NONE = 1e-6

      def self.call(song, input)
        kept = input[:kept]
        raise InvalidInput.of("no_takes", "/pass", "What was played in this pass is no longer kept.") unless kept

        address = Inputs.target(song, input[:address])
        laps = kept["laps"].to_h { |lap, strokes| [lap.to_i, Perform::Takes::Records.read(strokes)] }
        takes = Perform::Takes.new(laps)
        strokes = { address => parts(input) ? takes.chosen(parts(input), input.fetch(:join_ticks, 0)) : takes.all }
        raise InvalidInput.of("nothing_played", "/parts", "Nothing was played there.") if strokes[address].empty?

        pass, region_id = written(song, strokes, input, kept)
        kept_now = kept_of(pass, address, input, region_id).merge("fresh" => afresh?(input, kept))
        [pass.song, "write #{song.parameter(address).name} again",
         [measure(pass, address), *shared(pass), *missed(pass)], kept_now]
      end

      def self.written(song, strokes, input, kept)
        into, role = input[:into] || kept["into"], input[:role] || kept["role"]
        afresh = afresh?(input, kept)
        song, region_id = afresh ? moved(song, strokes, into, kept) : [restored(song, kept), kept["region_id"]]
        song = apart(song, strokes) if input[:separate]
        pass = Perform::HandPass.write(song, strokes, into: region_id ? "region" : into, region_id:, role:,
                                                      tolerance: input[:tolerance] || kept["tolerance"])
        [pass, region_id]
      end

      def self.apart(song, strokes)
        address = strokes.keys.first
        return separated(song, strokes) unless address.setting? || address.clip_id

        raise InvalidInput.of("not_apart", "/separate",
                              "#{song.full_name(address)} belongs to its clip; of a copy it would be another.")
      end

      # Whether it is written somewhere else, or as something else, than it was.
      def self.afresh?(input, kept)
        input[:separate] || %i[into role].any? { |way| input[way] && input[way] != kept[way.to_s] }
      end

      # What the pass made goes, with a carrier that then holds nothing.
      def self.moved(song, strokes, into, kept)
        song = restored(song, kept)
        made = kept["bases"].select { |id, base| base["made"] && song.directory.envelopes.key?(id) }
        song = made.each_key.reduce(song) { |now, id| Transfer::Lanes.change(now, id) { nil } }
        placed = kept["region_id"] && song.directory.regions[kept["region_id"]]
        if placed && song.clip(placed.region.clip_id).envelopes.empty?
          song = RemoveRegions.call(song, { region_ids: [placed.region.id] }).first
          song = song.with(clips: song.clips.except(placed.region.clip_id))
        end
        into == "carrier" ? carrier_for(song, strokes) : [song, nil]
      end

      def self.parts(input)
        input[:parts]&.map { |part| Perform::Takes::Part.new(*part.values_at("lap", "from_tick", "to_tick")) }
      end

      # Every envelope as it was before the pass.
      def self.restored(song, kept)
        kept["bases"].reduce(song) do |now, (id, base)|
          next now unless now.directory.envelopes.key?(id)

          points = base["points"].map { |record| KindSatchel::Records.read_point(record) }
          clock, own_length_ticks = base["clock"]
          Transfer::Lanes.change(now, id) do |envelope|
            envelope.with(points:, **(clock ? { clock:, own_length_ticks: } : {}))
          end
        end
      end

      def self.measure(pass, address)
        found = measured(pass, address)
        share = found["difference"]
        close = share < NONE ? "just as it was played" : "within #{format('%.2g', share * 100)} % of what was played"
        Notice.new("thinned", [], "#{PlainText.count(found['points'] || 0, 'point')}, #{close}")
      end

      def self.kept_of(pass, address, input, region_id)
        bases = pass.envelopes.fetch(address, []).to_h { |id| [id, base(pass.bases[id])] }
        { "into" => input[:into], "role" => input[:role], "region_id" => region_id,
          "moves" => { address.to_s => { "bases" => bases, **measured(pass, address) } } }
      end
      private_class_method :apart, :afresh?, :parts, :written, :moved, :restored, :measure, :kept_of
    end
  end
end
