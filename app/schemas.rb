# frozen_string_literal: true

require "json"
require "pathname"
require_relative "list_limits"
require_relative "wording"

# Checks data against the schemas of the project. All faults come back at once.
module Schemas
  FOLDER = Pathname.new(File.expand_path("../schemas", __dir__))
  # The largest document that is read, in bytes.
  LARGEST_DOCUMENT = 32 * 1024 * 1024
  # The most values of a request: each takes far more room than its text. A document has fewer.
  MOST_VALUES = 4_000_000
  MOST_NESTED = 32
  # What some programs begin a text with; it says nothing (RFC 8259, 8.1, lets a reader pass over it).
  BYTE_ORDER_MARK = "\uFEFF"
  # What a number beyond all bounds looks like; it is rare, so only then every number is looked at.
  HUGE = /\de\+?\d{3}/i
  # Versions of the song document that are read.
  VERSIONS = (1..KindSatchel::Document::VERSION)
  OLDER = (1...KindSatchel::Document::VERSION)

  module_function

  # @param name [String] "song" or "edits/NAME"
  # @return [void]
  # @raise [KindSatchel::InvalidInput] with the first faults; of lists that are too long only that
  # @yieldreturn [Object] what is left to the schema, where a reader checks the rest
  def check!(name, data)
    faults = ListLimits.faults(source(name), data)
    faults = faults_of(name, block_given? ? yield : data) if faults.empty?
    raise KindSatchel::InvalidInput, faults unless faults.empty?
  end

  def faults_of(name, data)
    schema(name).validate(data).lazy.map { |error| fault(error) }.first(KindSatchel::Faults::MOST)
  end

  # @raise [KindSatchel::NotFound] for an unknown edit
  # @raise [KindSatchel::InvalidInput]
  def check_edit!(name, inputs)
    KindSatchel::Edits::ALL.fetch(name)
    check!("edits/#{name}", inputs) { slim_edit(name, inputs) }
  end

  # Played moves without most of their samples, which the edit checks itself: a schema takes long over ten thousands
  # of numbers.
  def slim_edit(name, inputs)
    return inputs unless name == "record_moves" && inputs.is_a?(Hash) && inputs["moves"].is_a?(Array)

    inputs.merge("moves" => inputs["moves"].map do |move|
      move.is_a?(Hash) && move["grips"].is_a?(Array) ? slim_move(move) : move
    end)
  end

  # A pass without most of its samples, which the schema holds one by one.
  def slim_move(move)
    grips = move["grips"].map do |grip|
      grip.is_a?(Hash) && grip["samples"].is_a?(Array) ? grip.merge("samples" => grip["samples"].first(2)) : grip
    end
    move.merge("grips" => grips)
  end

  # Reads a song document.
  # @param text [String] JSON
  # @return [Opened]
  # @raise [KindSatchel::InvalidInput] for text that is no JSON, too large, of another version, or breaks a rule
  def read_song(text)
    if text.bytesize > LARGEST_DOCUMENT
      raise KindSatchel::InvalidInput.of("too_large", "",
                                         "The document has #{text.bytesize} bytes; at most #{LARGEST_DOCUMENT} are " \
                                         "read.")
    end

    data = parse(text)
    version!(data)
    version = data.is_a?(Hash) ? data["version"] : nil
    old = OLDER.include?(version)
    check!(old ? "song-#{version}" : "song", data) { slim(data) }
    song = KindSatchel::Document.load(old ? KindSatchel::Upgrade.document(data) : data)
    Opened.new(song, version == 1 ? KindSatchel::Upgrade.places(song) : [])
  end

  # A document without its points and notes, which the core's reader checks (see KindSatchel::Form), and without lists
  # of envelopes that are all seen to be sound at a glance: a schema takes long over ten thousand of them.
  def slim(data)
    return data unless data.is_a?(Hash)

    data.to_h do |key, list|
      next [key, list] unless %w[tracks clips].include?(key) && list.is_a?(Array)

      [key, list.map { |owner| owner.is_a?(Hash) ? slim_owner(owner) : owner }]
    end
  end

  def slim_owner(owner)
    owner.to_h do |key, value|
      next [key, value] unless value.is_a?(Array)
      next [key, []] if key == "notes"

      next [key, []] if value.all? { |one| PlainEnvelope.sound?(one) }

      [key, value.map { |one| one.is_a?(Hash) && one["points"].is_a?(Array) ? one.merge("points" => []) : one }]
    end
  end

  # Envelopes as nearly all are: what schemas/song.json asks of one, its points aside. A spec holds both to the same.
  module PlainEnvelope
    ID = /\A[a-z0-9][a-z0-9-]{0,63}\z/
    OWN = (KindSatchel::Timing::SHORTEST_TICKS..KindSatchel::Timing::LAST_TICK)
    UNIT = (0..1)
    TESTS = {
      "id" => ->(value) { value.is_a?(String) && ID.match?(value) },
      "target" => ->(value) { value.is_a?(String) && value.length.between?(1, 200) },
      "role" => ->(value) { KindSatchel::Roles::ALL.ids.include?(value) },
      "clock" => ->(value) { KindSatchel::Clocks::ALL.ids.include?(value) },
      "own_length_ticks" => ->(value) { value.nil? || (value.is_a?(Integer) && OWN.cover?(value)) },
      "limits" => lambda { |value|
        value.is_a?(Array) && value.size == 2 && value.all? { |one| one.is_a?(Numeric) && one.between?(-1, 1) }
      },
      "depth" => ->(value) { value.is_a?(Numeric) && UNIT.cover?(value) },
      "source" => ->(_) { false },
      "followed" => ->(_) { false },
      "on" => ->(value) { [true, false].include?(value) },
      "fader" => ->(value) { KindSatchel::Envelope::FADERS.include?(value) },
      "points" => ->(value) { value.is_a?(Array) && value.size <= KindSatchel::Envelope::MOST_POINTS }
    }.freeze
    NEEDED = (TESTS.keys - %w[fader limits depth source followed]).freeze

    module_function

    def sound?(record)
      record.is_a?(Hash) && NEEDED.all? { |key| record.key?(key) } && record.all? do |key, value|
        TESTS[key]&.call(value)
      end
    end
  end

  # A song that was read, and the places that sound different from what its older version did.
  Opened = Struct.new(:song, :places)

  # @param text [String] bytes
  # @raise [KindSatchel::InvalidInput] for text that is no JSON, no UTF-8, or holds numbers beyond all bounds
  def parse(text)
    text = text.dup.force_encoding("UTF-8").delete_prefix(BYTE_ORDER_MARK)
    raise KindSatchel::InvalidInput.of("bad_encoding", "", "This is not valid UTF-8.") unless text.valid_encoding?

    if text.count(",") > MOST_VALUES
      raise KindSatchel::InvalidInput.of("too_many_values", "",
                                         "This holds more than #{MOST_VALUES} values.")
    end

    JSON.parse(text, max_nesting: MOST_NESTED, allow_duplicate_key: false).tap do |data|
      finite!(data, "") if text.match?(HUGE)
    end
  rescue JSON::ParserError, EncodingError => e
    key = e.message[DOUBLED, 1]
    if key
      raise KindSatchel::InvalidInput.of("doubled_key", "",
                                         "The key #{key.scrub} stands twice in one place; nobody can say which is " \
                                         "meant.")
    end

    raise KindSatchel::InvalidInput.of("bad_json", "", no_json(e))
  end

  # Where it is no JSON; a parser's own words quote what was sent.
  def no_json(error)
    return "This is no JSON: it goes more than #{MOST_NESTED} levels deep." if error.is_a?(JSON::NestingError)

    line, column = error.line, error.column if error.is_a?(JSON::ParserError)
    line ? "This is no JSON: it cannot be read at line #{line}, column #{column}." : "This is no JSON."
  end
  DOUBLED = /\Aduplicate key ("[^"]{0,80}")/

  def finite!(data, path)
    case data
    when Hash then data.each { |key, value| finite!(value, "#{path}/#{key}") }
    when Array then data.each_with_index { |value, i| finite!(value, "#{path}/#{i}") }
    when Numeric
      raise KindSatchel::InvalidInput.of("out_of_range", path, "This number is too large.") unless data.abs < 1e300
    end
  end

  def version!(data)
    return unless data.is_a?(Hash) && data["format"] == KindSatchel::Document::FORMAT && data["version"].is_a?(Numeric)
    return if data["version"].is_a?(Integer) && VERSIONS.include?(data["version"])

    sentence = "This is version #{data['version']} of the format; versions #{VERSIONS.first} to #{VERSIONS.last} are " \
               "read."
    raise KindSatchel::InvalidInput.of("unknown_version", "/version", sentence)
  end

  # Loaded when it is first needed: most of the command line's time to start would go into it.
  def schema(name)
    require "json_schemer"
    @schema ||= {}
    @schema[name] ||= JSONSchemer.schema(FOLDER.join("#{name}.json"))
  end

  # The schema as plain data.
  def source(name)
    @source ||= {}
    @source[name] ||= JSON.parse(FOLDER.join("#{name}.json").read)
  end

  def fault(error) = KindSatchel::Fault.new("schema_#{error['type']}", error["data_pointer"], Wording.of(error))

  private_class_method :faults_of, :slim, :slim_owner, :version!, :schema, :source, :fault, :finite!, :no_json
end
