# frozen_string_literal: true

require "open3"

# bin/bench runs seldom, so what it needs is held to what is there.
RSpec.describe "bin/bench" do
  root = File.expand_path("../..", __dir__)
  sections = File.read("#{root}/bench/promises.rb")[/SECTIONS = %w\[(.*?)\]/m, 1].split
  files = [*Dir["#{root}/bench/*.rb"], "#{root}/bin/bench"].sort

  before(:context) do
    AppHelpers.start
    require "capybara/cuprite"
    # In the order in which it loads them itself.
    File.read("#{root}/bin/bench").scan(%r{^require_relative "\.\./(bench/\w+)"}) { |(file)| require "#{root}/#{file}" }
    files.each { |file| require file if file.end_with?(".rb") }
  end

  # Every constant that a file names, as far as it is spelt out: ["LongWork", "LONG_BYTES"].
  def named(node, found = [])
    return found unless node.is_a?(RubyVM::AbstractSyntaxTree::Node)

    path = spelt(node)
    return found << path if path

    node.children.each { |child| named(child, found) }
    found
  end

  def spelt(node)
    case node.type
    when :CONST then [node.children[0].to_s]
    when :COLON2
      head = node.children[0] && spelt(node.children[0])
      head && [*head, node.children[1].to_s]
    end
  end

  # What the file itself opens is looked through first, as Ruby does.
  def opened(node, found = [])
    return found unless node.is_a?(RubyVM::AbstractSyntaxTree::Node)

    found << node.children[0].children[-1].to_s if %i[CLASS MODULE].include?(node.type)
    node.children.each { |child| opened(child, found) }
    found
  end

  def there?(path, homes)
    homes.any? do |home|
      path.reduce(home) { |place, name| place.const_get(name) }
      true
    rescue NameError
      false
    end
  end

  files.each do |file|
    it "names nothing in #{File.basename(file)} that is not there" do
      tree = RubyVM::AbstractSyntaxTree.parse(File.read(file))
      homes = [*opened(tree).filter_map { |name| Object.const_get(name) if Object.const_defined?(name) }, KindSatchel, Object]
      lost = named(tree).uniq.reject { |path| there?(path, homes) }
      expect(lost.map { |path| path.join("::") }).to eq []
    end
  end

  it "has a method for each section, and says which there are" do
    head = File.read("#{root}/bin/bench")[/\A.*?ENV/m]
    expect(sections.reject { |name| Promises.private_method_defined?(name) }).to eq []
    expect(sections.reject { |name| head.include?(name) }).to eq []
  end

  if ENV["SATCHEL_LONG"]
    sections.each do |section|
      it "runs #{section} on the smallest song" do
        out, err, status = Open3.capture3({ "BENCH" => "small" }, "#{root}/bin/bench", section)
        expect(status.exitstatus).to eq(0), err
        expect(JSON.parse(out[/^\{.*\z/m])).not_to be_empty
      end
    end
  end
end
