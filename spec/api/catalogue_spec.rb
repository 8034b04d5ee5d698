# frozen_string_literal: true

# What the page shows a knob of a move at: what a hand holds, else what comes with the move, else where the catalogue says that it begins.
RSpec.describe "Knobs of moves" do
  # As the page does it, from what it is told alone.
  def shown(catalogue, record, name)
    return record["held"][name] if record.dig("held", name)

    limit = %w[low high].include?(name)
    kind = "-shift" if limit && record["role"] == "shift"
    kind = "-free" if name == "rate" && record.dig("source", "hertz")
    record.dig("knobs", name) || catalogue["settings"]["#{name}#{kind}"]["default"]
  end

  def moves(role)
    free = KindSatchel::Sources::Lfo.plain.with(hertz: 3.0)
    values = role == "shift" ? [-0.5, 0.25] : [0.2, 0.7]
    plain = envelope([0, values[0]], [960, values[1]], role:)
    [plain, plain.with(limits: values), plain.with(depth: 0.4), plain.with(held: { "low" => 0.3 }),
     plain.with(points: [], source: KindSatchel::Sources::Lfo.plain), plain.with(points: [], source: free, limits: values.reverse)]
  end

  %w[set shift scale].each do |role|
    it "stand where the core has them and read as the core does, of every kind of move that #{role}s" do
      moves(role).each do |move|
        id = plant(small_song(clip: [move]))
        edited = edit(id, "switch_envelope", { envelope_id: "e1", on: false })["parts"].find { |kind, part,| [kind, part] == %w[envelope e1] }[2]
        catalogue = get_json("/api/catalogue")
        names = KindSatchel::Settings.names(move)
        core = names.map { |name| move.held.fetch(name) { KindSatchel::Settings.knob(move, name) } }
        expect(names.map { |name| shown(catalogue, edited, name) }).to eq core
        told = get_json("/api/songs/#{id}/values?addresses=#{names.map { |name| "move/e1/#{name}" }.join(',')}&tick=0")
        parameters = names.map { |name| snapshot(id).song.parameter(address("move/e1/#{name}")) }
        texts = parameters.zip(core).map { |parameter, value| parameter.text(value) }
        expect(JSON.generate(told)).to include(*texts.map { |text| JSON.generate(text) })
      end
    end
  end
end
