# frozen_string_literal: true

require "json"
require "json_schemer"
require "pathname"

# Checks data against the schemas of the project. All faults come back at once.
module Schemas
  FOLDER = Pathname.new(File.expand_path("../schemas", __dir__))
  # The largest document that is read, in bytes.
  LARGEST_DOCUMENT = 32 * 1024 * 1024
  MOST_FAULTS = 50
  # Versions of the song document that are read.
  VERSIONS = [1, KindSatchel::Document::VERSION].freeze

  module_function

  # @param name [String] "song" or "edits/NAME"
  # @return [void]
  # @raise [KindSatchel::InvalidInput] with up to {MOST_FAULTS} faults
  def check!(name, data)
    faults = schema(name).validate(data).first(MOST_FAULTS).map { |error| fault(error) }
    raise KindSatchel::InvalidInput, faults unless faults.empty?
  end

  # @raise [KindSatchel::NotFound] for an unknown edit
  # @raise [KindSatchel::InvalidInput]
  def check_edit!(name, inputs)
    KindSatchel::Edits::ALL.fetch(name)
    check!("edits/#{name}", inputs)
  end

  # Reads a song document.
  # @param text [String] JSON
  # @return [Opened]
  # @raise [KindSatchel::InvalidInput] for text that is no JSON, too large, of another version, or breaks a rule
  def read_song(text)
    if text.bytesize > LARGEST_DOCUMENT
      raise KindSatchel::InvalidInput.of("too_large", "", "The document has #{text.bytesize} bytes; at most #{LARGEST_DOCUMENT} are read.")
    end

    data = parse(text)
    version!(data)
    old = data.is_a?(Hash) && data["version"] == 1
    check!(old ? "song-1" : "song", data)
    song = KindSatchel::Document.load(old ? KindSatchel::Upgrade.document(data) : data)
    Opened.new(song, old ? KindSatchel::Upgrade.places(song) : [])
  end

  # A song that was read, and the places that sound different from what its older version did.
  Opened = Struct.new(:song, :places)

  # @raise [KindSatchel::InvalidInput]
  def parse(text)
    JSON.parse(text, max_nesting: 32)
  rescue JSON::ParserError, EncodingError => e
    raise KindSatchel::InvalidInput.of("bad_json", "", "This is no JSON: #{e.message[0, 160].scrub}")
  end

  def version!(data)
    return unless data.is_a?(Hash) && data["format"] == KindSatchel::Document::FORMAT && data["version"].is_a?(Integer)
    return if VERSIONS.include?(data["version"])

    sentence = "This is version #{data['version']} of the format; versions #{VERSIONS.join(' and ')} are read."
    raise KindSatchel::InvalidInput.of("unknown_version", "/version", sentence)
  end

  def schema(name)
    @schema ||= {}
    @schema[name] ||= JSONSchemer.schema(FOLDER.join("#{name}.json"))
  end

  def fault(error)
    place = error["data_pointer"]
    message = error["error"].sub(/\A(value|object property|object|array item) at (root|`[^`]*`)/, "This").sub("This is missing required properties", "Missing")
    KindSatchel::Fault.new("schema_#{error['type']}", place, "#{message}.")
  end

  private_class_method :version!, :schema, :fault
end
