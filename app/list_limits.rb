# frozen_string_literal: true

# Refuses lists by their length before anything in them is looked at.
class ListLimits
  # No list of a song or an edit is longer, whatever its schema says.
  LONGEST = 200_000

  # @param schema [Hash] a JSON schema
  # @param data [Object]
  # @return [Array<KindSatchel::Fault>]
  def self.faults(schema, data) = new(schema).faults(data)

  def initialize(schema)
    @root = schema
  end

  # @param data [Object] parsed JSON
  # @return [Array<KindSatchel::Fault>] a fault for each list that is longer than its schema allows
  def faults(data)
    @faults = []
    look(@root, data, "")
    @faults
  end

  private

  def look(schema, data, path)
    return if @faults.size >= KindSatchel::Faults::MOST

    schema = resolved(schema)
    case data
    when Array then look_at_list(schema, data, path)
    when Hash then data.each do |key, value|
      look(schema.dig("properties", key) || {}, value, "#{path}/#{key}") if value.is_a?(Array) || value.is_a?(Hash)
    end
    end
  end

  def look_at_list(schema, data, path)
    most = [schema.fetch("maxItems", LONGEST), LONGEST].min
    if data.size > most
      @faults << KindSatchel::Fault.new("too_many", path,
                                        "This list has #{data.size} entries; at most #{most} are read.")
    elsif data.first.is_a?(Array) || data.first.is_a?(Hash)
      items = schema["items"] || {}
      data.each_with_index { |entry, i| look(items, entry, "#{path}/#{i}") } if deep?(items)
    end
  end

  # Whether entries hold lists themselves.
  def deep?(schema)
    schema = resolved(schema)
    schema.empty? || schema.fetch("properties", {}).each_value.any? do |entry|
      resolved(entry).slice("items", "properties").any?
    end
  end

  def resolved(schema)
    return schema unless schema.is_a?(Hash) && schema["$ref"]&.start_with?("#/")

    resolved(@root.dig(*schema["$ref"].delete_prefix("#/").split("/")) || {})
  end
end
