# frozen_string_literal: true

require "erb"
require "kramdown"
require "kramdown-parser-gfm"

# The documents of the project as pages, and what the guide says of each panel.
module Guide
  FOLDER = Pathname(__dir__).join("../docs").cleanpath
  CONTENTS = "guide/README.md"
  FRAME = ERB.new(File.read(File.expand_path("guide.erb", __dir__)), trim_mode: "-")
  # What a page of it may be called.
  NAME = %r{\A(?:[a-z0-9-]+/)*[A-Za-z0-9-]+\.(md|png)\z}

  # A page of the guide: where it lies in the documents, and its title.
  Entry = Struct.new(:path, :title)

  module_function

  # @param name [String] of a document or a picture, within docs
  # @return [Pathname, nil]
  def file(name)
    path = FOLDER.join(name).cleanpath
    path if NAME.match?(name) && path.file?
  end

  # @return [Array<Entry>] the pages in the order in which they are to be read
  def entries
    FOLDER.join(CONTENTS).read.scan(/^\d+\. \[(.+?)\]\((.+?)\)$/).map do |title, path|
      Entry.new("guide/#{path}", title)
    end
  end

  # @param name [String] of a document
  # @param styles [String] the address of the app's styles
  # @return [String] HTML
  def page(name, styles:)
    text = file(name).read
    list = entries
    at = list.index { |entry| entry.path == name }
    before, after = at ? [at.positive? ? list[at - 1] : nil, list[at + 1]] : [nil, nil]
    FRAME.result_with_hash(title: text[/^# (.+)$/, 1] || name, body: html(text), list:, name:, before:, after:, styles:)
  end

  # What each panel is for: the first words under the heading that bears its name, and where they stand.
  # @return [Hash{String => Hash}] "words" and "page" by heading
  def help
    entries.map { |entry| topics(entry.path) }.reduce({}, :merge)
  end

  def topics(path)
    FOLDER.join(path).read.scan(/^## (.+)\n\n(.+)$/).to_h do |heading, words|
      [heading, { "words" => plain(words), "page" => "/docs/#{path}##{heading.downcase.tr(' ', '-')}" }]
    end
  end

  def plain(words) = words.gsub(/\[(.+?)\]\(.+?\)/, '\1').gsub(/[*`]/, "")
  def html(text) = Kramdown::Document.new(text, input: "GFM", hard_wrap: false, syntax_highlighter: nil).to_html
  private_class_method :topics, :plain, :html
end
