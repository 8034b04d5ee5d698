# frozen_string_literal: true

require "open3"

# The one table of what can be done, as the page has it; read without a page.
RSpec.describe "The table of commands" do
  root = File.expand_path("../..", __dir__)
  read = lambda do
    @read ||= begin
      output, status = Open3.capture2("node", "docs/commands.mjs", "--print", chdir: root)
      raise "the table could not be read" unless status.success?

      JSON.parse(output)
    end
  end
  let(:table) { read.call.fetch("table") }

  def doubles(list) = list.tally.select { |_, count| count > 1 }.keys

  it "names each command once in its group, says what it does, and gives no key twice where it acts" do
    expect(table.sum { |group| group["commands"].size }).to be > 80
    studio = table.select { |group| group["of"] == "studio" }.flat_map { |group| group["commands"] }
    table.each do |group|
      commands = group["commands"]
      expect([group["group"], doubles(commands.map { |one| one["id"] }), doubles(commands.map { |one| one["words"] })]).to eq [group["group"], [], []]
      expect(commands.map { |one| one["what"] }).to all(match(/\A[A-Z].{8,}[^.]\z/))
      reached = (commands | studio).map { |one| one["text"] }.reject(&:empty?)
      expect([group["group"], doubles(reached)]).to eq [group["group"], []]
    end
  end

  it "has exactly one command for every key that can be changed" do
    expect(table.flat_map { |group| group["commands"].filter_map { |one| one["key"] } }.sort).to eq read.call.fetch("keys").sort
  end

  it "is what the guide tells" do
    expect(File.read(File.join(root, "docs/guide/commands.md"))).to eq(read.call.fetch("page")), "run node docs/commands.mjs"
  end
end
