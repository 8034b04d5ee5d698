# frozen_string_literal: true

# The contents pages tell the truth: each part of the core knows only those above it, and so do the rooms of what is heard.
RSpec.describe "The floors of the core" do
  root = File.expand_path("../../core/kind_satchel", __dir__)

  # The files of a part: the one of its name and all in the folder of its name.
  def self.files(path) = [*Dir["#{path}.rb"], *Dir["#{path}/**/*.rb"]]

  # The modules and classes that files define so many spaces in.
  def self.names(files, spaces)
    files.flat_map { |file| File.read(file).scan(/^ {#{spaces}}(?:class|module) (\w+)|^ {#{spaces}}(\w+) = Struct/).flatten.compact }.uniq
  end

  # Code without its comments and texts, but for what is worked out in them.
  def code(file)
    File.read(file).gsub(/#.*$/, "").gsub(/"(?:[^"\\]|\\.)*"/) { |text| text.scan(/\#\{.*?\}/).join(" ") }
  end

  def constants(file) = code(file).scan(/(?<![:\w.])([A-Z]\w+)(?=[.:(\s)])/).flatten.uniq

  contents = ->(file) { File.read(file).scan(%r{^require_relative "(?:kind_satchel|heard)/(\w+)"}).flatten }
  { "the core" => ["#{root}.rb", root, 2], "heard" => ["#{root}/heard.rb", "#{root}/heard", 4] }.each do |name, (page, folder, spaces)|
    floors = contents.call(page)
    owner = floors.flat_map { |floor| names(files("#{folder}/#{floor}"), spaces).map { |one| [one, floor] } }.reverse.to_h

    floors.each_with_index do |floor, index|
      below = floors.drop(index + 1)
      it "#{floor}, in #{name}, knows none of #{below.join(', ')}" do
        found = self.class.files("#{folder}/#{floor}").flat_map do |file|
          constants(file).select { |one| below.include?(owner[one]) }.map { |one| "#{File.basename(file)}: #{one}" }
        end
        expect(found).to eq []
      end
    end
  end
end
