# frozen_string_literal: true

require_relative "../support/docstrings"
require_relative "../../docs/edits"

# What an engineer reads first is so: methods are described, faults are told, examples do what they say.
RSpec.describe "The docstrings" do
  %w[core app].each do |part|
    it "of #{part} describe nine public methods in ten" do
      known, bare = [Docstrings.methods, Docstrings.bare].map { |list| list.select { |one| one.file.include?("/#{part}/") } }
      expect(bare.map(&:path)).to have_attributes(size: be <= known.size / 10)
    end
  end

  it "tell what is raised where it is raised" do
    silent = Docstrings.methods.select do |one|
      one.source.match?(/\braise[ (]+[A-Z]|\bfault!\(|\brefuse!\(/) && one.docstring.tags(:raise).empty? && !Docstrings.promised?(one)
    end
    expect(silent.map(&:path)).to eq []
  end

  it "have examples enough" do
    expect(Docstrings.examples.size).to be >= 60
  end

  it "give examples that are so", :long, :aggregate_failures do
    Docstrings.examples.each do |object, text|
      place = Docstrings.inside(object)
      place.local_variable_set(:song, DemoSong.build)
      Docstrings.statements(text).each do |code, wanted|
        found = place.eval(code)
        expect(found).to eq(place.eval(wanted)), "#{object.path}: #{code} gives #{found.inspect}" if wanted
      end
    end
  end

  it "of the edits agree with the page that lists them" do
    expect(File.read(EditsPage::FILE)).to eq EditsPage.text
  end
end
