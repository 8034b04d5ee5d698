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
end
