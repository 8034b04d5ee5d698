# frozen_string_literal: true

# The folders of the front end stand one upon the other: each knows only those below it.
RSpec.describe "The floors of the front end" do
  root = File.expand_path("../../web/src", __dir__)
  floors = %w[api geometry state sound ui gestures commands table panels shell]
  files = Dir[File.join(root, "*/**/*.{ts,tsx}")].reject { |file| file.include?("/generated/") }

  imported = lambda do |file|
    places = File.read(file).scan(/(?:from|import)\s*\(?"(\.[^"]+)"/).flatten
    places.map { |place| File.expand_path(place, File.dirname(file)).delete_prefix("#{root}/").split("/").first }
  end

  it "are all named here" do
    expect(Dir.children(root).select { |name| File.directory?(File.join(root, name)) }).to match_array floors
  end

  floors.each_with_index do |floor, place|
    it "#{floor} imports nothing from above it" do
      own = files.select { |file| file.start_with?(File.join(root, floor, "")) }
      wrong = own.flat_map { |file| (imported.call(file) & floors.drop(place + 1)).map { |other| "#{File.basename(file)}: #{other}" } }
      expect([own.any?, wrong]).to eq [true, []]
    end
  end

  it "finds no screen through the page" do
    seekers = files.select { |file| File.read(file).match?(/querySelector|getElementById|getElementsBy|elementsFromPoint/) }
    expect(seekers).to eq []
  end

  it "keeps its lines to 120 columns" do
    styles = Dir[File.join(root, "**/*.css")]
    long = (files + styles).flat_map do |file|
      File.readlines(file, chomp: true).each_with_index.select do |line, _|
        line.size > 120
      end.map { |_, i| "#{file}:#{i + 1}" }
    end
    expect(long).to eq []
  end
end
