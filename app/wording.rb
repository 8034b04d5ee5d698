# frozen_string_literal: true

# What a schema finds wrong, in words for people who make music.
module Wording
  KINDS = { "integer" => "a whole number", "number" => "a number", "string" => "a text",
            "boolean" => "yes or no (true or false)",
            "array" => "a list", "object" => "a set of named values", "null" => "nothing" }.freeze
  # Fields whose form is worth a sentence of its own.
  SPECIAL = { "beats" => "A meter is written like 4/4: 1 to 64 beats.",
              "unit" => "A meter is written like 4/4: its beat is a 1/1, 1/2, 1/4, 1/8, 1/16 or 1/32 note.",
              "bpm" => "A tempo lies between 10 and 400 BPM." }.freeze

  module_function

  # @param error [Hash] of json_schemer
  # @return [String]
  def of(error)
    name = error["data_pointer"].split("/").last.to_s
    SPECIAL.fetch(name) { sentence(error, name.match?(/\A\d*\z/) ? "This" : name.tr("_", " ").capitalize) }
  end

  def sentence(error, name)
    schema = error["schema"]
    case error["type"]
    when "required" then missing(error.dig("details", "missing_keys"))
    when *KINDS.keys then "#{name} is #{KINDS[error['type']]}."
    when "enum", "const" then "#{name} is one of: #{(schema['enum'] || [schema['const']]).join(', ')}."
    when "schema" then "#{name} is not known here."
    else "#{name} #{limit(error['type'], schema)}"
    end
  end

  def missing(keys) = "#{keys.join(', ')} #{keys.size == 1 ? 'is' : 'are'} missing."

  def limit(type, schema)
    case type
    when /m(in|ax)imum/i then "lies between #{schema['minimum'] || schema['exclusiveMinimum']} and " \
                              "#{schema['maximum'] || schema['exclusiveMaximum']}."
    when "minLength", "maxLength" then "has #{schema['minLength'] || 0} to #{schema['maxLength']} characters."
    when "minItems" then "has at least #{schema['minItems']} entries."
    when "maxItems" then "has at most #{schema['maxItems']} entries."
    else "is not written as it should be#{described(schema)}."
    end
  end

  def described(schema)
    schema.is_a?(Hash) && schema["description"] ? ": #{schema['description'].delete_suffix('.')}" : ""
  end
  private_class_method :sentence, :missing, :limit, :described
end
