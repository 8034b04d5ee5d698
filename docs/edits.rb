# frozen_string_literal: true

# Writes docs/edits.md from the schemas of the edits:
#
#   ruby docs/edits.rb
require "json"
require_relative "../core/kind_satchel"

# Every edit with what it takes, as a page.
module EditsPage
  FILE = File.expand_path("edits.md", __dir__)
  SCHEMAS = File.expand_path("../schemas/edits", __dir__)
  HEAD = <<~TEXT
    # Edits

    Every change to a song is one of these, in the app, over the wire and by `bin/satchel edit`. Each is an object
    `{"edit": NAME, "inputs": {...}}`. What is not marked *needed* may be left out. This page is made from
    `schemas/edits/` by `ruby docs/edits.rb`.
  TEXT

  module_function

  def text
    [HEAD, *KindSatchel::Edits::FOLDERS.map { |folder, names| ["## #{folder}", *names.map { |name| edit(name) }].join("\n\n") }]
      .join("\n").concat("\n")
  end

  def edit(name)
    schema = JSON.parse(File.read(File.join(SCHEMAS, "#{name}.json")))
    needed = schema.fetch("required", [])
    inputs = schema.fetch("properties", {}).map { |input, rules| input(input, rules, needed.include?(input)) }
    ["### #{name}", schema.fetch("description"), *(inputs.join("\n") unless inputs.empty?)].join("\n\n")
  end

  def input(name, rules, needed)
    "- `#{name}` #{[kind(rules), *('*needed*' if needed)].join(', ')}#{". #{rules['description']}" if rules['description']}"
  end

  # What a value may be, in words.
  # @param rules [Hash] JSON schema
  def kind(rules)
    return rules["enum"].map { |one| one.nil? ? "nothing" : "`#{one}`" }.join(" or ") if rules["enum"]
    return reference(rules["$ref"]) if rules["$ref"]

    choices = rules["oneOf"] || rules["anyOf"]
    return choices.map { |one| kind(one) }.uniq.join(" or ") if choices && !rules["type"]

    types = [*rules["type"]]
    types.map { |type| plain(type, rules) }.join(" or ")
  end

  # @param path [String] "../song.json#/$defs/envelope"
  def reference(path)
    file, name = path.split("#")
    name ? "`#{name.split('/').last}` of `schemas/#{File.basename(file)}`" : "as in `schemas/#{File.basename(file)}`"
  end

  def plain(type, rules)
    case type
    when "string" then "text#{range(rules, 'minLength', 'maxLength', ' characters')}"
    when "array" then "list#{range(rules, 'minItems', 'maxItems', '')}, each #{kind(rules['items'] || {})}"
    when "integer" then "whole number#{range(rules, 'minimum', 'maximum', '')}"
    when "number" then "number#{range(rules, 'minimum', 'maximum', '')}"
    when "boolean" then "true or false"
    when "null" then "nothing"
    else object(rules)
    end
  end

  def object(rules)
    names = rules.fetch("properties", {}).keys
    names.empty? ? "object" : "object of #{names.map { |name| "`#{name}`" }.join(', ')}"
  end

  def range(rules, least, most, unit)
    low, high = rules.values_at(least, most)
    return " of #{low}#{unit}" if low && low == high
    return " #{low} to #{high}#{unit}" if low && high
    return " from #{low}#{unit}" if low

    high ? " up to #{high}#{unit}" : ""
  end
end

File.write(EditsPage::FILE, EditsPage.text) if $PROGRAM_NAME == __FILE__
