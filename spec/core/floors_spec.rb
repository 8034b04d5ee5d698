# frozen_string_literal: true

# The contents page tells the truth: each part of the core knows only those above it.
RSpec.describe "The floors of the core" do
  root = File.expand_path("../../core", __dir__)
  floors = File.read(File.join(root, "kind_satchel.rb")).scan(%r{^require_relative "kind_satchel/(\w+)"}).flatten

  # The modules and classes a floor defines right under KindSatchel.
  def self.names(root, floor)
    files = [File.join(root, "kind_satchel/#{floor}.rb"), *Dir[File.join(root, "kind_satchel/#{floor}/**/*.rb")]].select { |file| File.exist?(file) }
    files.flat_map { |file| File.read(file).scan(/^  (?:class|module) (\w+)/).flatten }.uniq
  end

  owner = floors.flat_map { |floor| names(root, floor).map { |name| [name, floor] } }.reverse.to_h

  floors.each_with_index do |floor, place|
    it "#{floor} knows none of #{floors.drop(place + 1).join(', ')}" do
      files = [File.join(root, "kind_satchel/#{floor}.rb"), *Dir[File.join(root, "kind_satchel/#{floor}/**/*.rb")]].select { |file| File.exist?(file) }
      code = files.to_h { |file| [file, File.read(file).gsub(/#.*$/, "").gsub(/"(?:[^"\\]|\\.)*"/) { |text| text.scan(/\#\{.*?\}/).join(" ") }] }
      below = floors.drop(place + 1)
      found = code.flat_map do |file, text|
        text.scan(/(?<![:\w.])([A-Z]\w+)(?=[.:(\s)])/).flatten.uniq.select do |name|
          below.include?(owner[name])
        end.map { |name| "#{File.basename(file)}: #{name}" }
      end
      expect(found).to eq []
    end
  end
end
