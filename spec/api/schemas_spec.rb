# frozen_string_literal: true

# One contract for the inputs of every edit.
RSpec.describe "Inputs of edits" do
  KindSatchel::Edits::NAMES.each do |name|
    describe name do
      let(:schema) { JSON.parse(File.read(Schemas::FOLDER.join("edits/#{name}.json"))) }

      it "has a name, a sentence, and one function in the core" do
        expect(schema["title"]).to eq "#{name.split('_').map(&:capitalize).join}Input"
        expect(schema["description"]).to match(/\A[A-Z].*\.\z/)
        expect(KindSatchel::Edits::ALL.fetch(name)).to respond_to(:call)
      end

      it "says which inputs it lacks and which it does not know, and takes no other kind of thing" do
        found = faults { Schemas.check_edit!(name, { "nonsense" => 1 }) }
        expect(found.map(&:last)).to include("/nonsense")
        expect(found.map(&:first)).to include("schema_required") if schema["required"]&.any?
        expect(faults { Schemas.check_edit!(name, [1]) }).to include(["schema_object", ""])
      end

      it "bounds every number and every list" do
        schema["properties"].each_value do |property|
          expect(property.keys).to include("minimum", "maximum") if %w[integer number].include?(property["type"])
          expect(property.keys).to include("maxItems") if property["type"] == "array"
        end
      end
    end
  end

  it "knows every shape the core has, and no other" do
    shapes = JSON.parse(File.read(Schemas::FOLDER.join("shape.json")))["oneOf"].map { |entry| entry["properties"]["shape"]["const"] }
    document = JSON.parse(File.read(Schemas::FOLDER.join("song.json")))["$defs"]["point"]["properties"]["shape"]["enum"]
    expect([shapes, document]).to all match_array(KindSatchel::Shapes::ALL.ids)
  end

  # Points and notes are checked by the core's reader alone; what the schema would refuse, it refuses.
  describe "the reader of points and notes" do
    let(:whole) { JSONSchemer.schema(Schemas::FOLDER.join("song.json")) }
    let(:document) { JSON.parse(JSON.generate(KindSatchel::Document.dump(DemoSong.build))) }

    spoiled = [nil, "x", -2, 1e9, 300, true, [], {}, 0.5, -0.25, 0, 1]
    keys = %w[tick value shape curve from to wave cycles note_ticks skew phase foot top nonsense]

    def refused?(record) = whole.validate(record).any?

    def reader_refuses?(record)
      faults { KindSatchel::Document.load(record) }.any?
    end

    before { require "json_schemer" }

    it "refuses every point that the schema refuses" do
      point = document["tracks"].flat_map { |track| track["lanes"] }.first["points"][1]
      point["shape"], point["curve"] = "curved", 0.1
      tried = keys.product(spoiled).map { |key, value| point.merge(key => value) } + %w[tick value shape].map { |key| point.except(key) } +
              %w[ess cycle straight sing].map { |shape| point.merge("shape" => shape) } + [nil, 3, "point", []]
      found = tried.map do |one|
        document["tracks"].flat_map { |track| track["lanes"] }.first["points"][1] = one
        [refused?(document), reader_refuses?(document)]
      end
      expect(found).not_to include([true, false])
      expect(found.tally.keys).to include([true, true], [false, false])
    end

    it "glances over no envelope that the schema refuses" do
      lane = document["tracks"].flat_map { |track| track["lanes"] }.first
      values = [*spoiled, "set", "own_length", [0, 1], [0, 2], [0.5], "A b", "x" * 201, 59, false]
      keys = (lane.keys - ["points"]) + ["nonsense"]
      tried = keys.product(values).map { |key, value| lane.merge(key => value) } + lane.keys.map { |key| lane.except(key) } + [nil, 3, []]
      found = tried.map do |one|
        document["tracks"].each { |track| track["lanes"] = [] }
        document["tracks"].first["lanes"] = [one]
        [Schemas::PlainEnvelope.sound?(one), refused?(document)]
      end
      expect(found).not_to include([true, true])
      expect(found.tally.keys).to include([true, false], [false, true])
    end

    it "refuses every note that the schema refuses" do
      note = document["clips"][0]["notes"][0]
      tried = (note.keys + ["nonsense"]).product(spoiled).map { |key, value| note.merge(key => value) } + note.keys.map do |key|
        note.except(key)
      end + [nil, 3, []]
      found = tried.map do |one|
        document["clips"][0]["notes"][0] = one
        [refused?(document), reader_refuses?(document)]
      end
      expect(found).not_to include([true, false])
      expect(found.tally.keys).to include([true, true], [false, false])
    end
  end
end
