# frozen_string_literal: true

require "tsort"

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

  # What is imported for its types alone is not there when the page runs.
  it "has no files that know each other in a ring" do
    known = files.to_h do |file|
      places = File.read(file).scan(/^(?:import|export)\s+(?!type\b)[^;]*?from "(\.[^"]+)"/).flatten
      [file, places.flat_map { |place| Dir["#{File.expand_path(place, File.dirname(file))}{,.ts,.tsx,/index.ts}"] & files }]
    end
    expect(known.values.sum(&:size)).to be > 1500
    rings = TSort.strongly_connected_components(known.method(:each_key), ->(file, &each) { known.fetch(file).each(&each) })
    expect(rings.reject(&:one?).map { |ring| ring.map { |file| file.delete_prefix("#{root}/") } }).to eq []
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
