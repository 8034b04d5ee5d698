# frozen_string_literal: true

# The one place where what a request says becomes a value: by its name each parameter of an address, and each field of
# a JSON body, has a type, a range and a length. What does not fit is refused with its place before anything is done.
module Parameters
  LARGEST_ID = (2**53) - 1
  LONGEST_LIST = 256 * 1024
  LONGEST_TABLE = 16 * 1024

  # A parameter of an address: a text that is turned into what it says.
  module Address
    module_function

    # @raise [KindSatchel::InvalidInput] always
    def refuse!(name, words) = raise(KindSatchel::InvalidInput.of("bad_value", "/#{name}", words))

    # Which song, version, key, ... it is: what is no number is none that there is.
    def id(_name, text) = text.match?(/\A-?\d{1,15}\z/) ? text.to_i : 0

    # @return [Integer] within the range
    # @raise [KindSatchel::InvalidInput]
    def whole(name, text, range = 0..KindSatchel::Timing::LAST_TICK)
      number = text.match?(/\A\d{1,12}\z/) ? text.to_i : -1
      return number if range.cover?(number)

      raise KindSatchel::InvalidInput.of("out_of_range", "/#{name}",
                                         "#{name} is a whole number from #{range.min} to #{range.max}.")
    end

    # @return [Float] -1..1
    # @raise [KindSatchel::InvalidInput]
    def number(name, text)
      value = Float(text, exception: false)
      return value if value&.between?(-1, 1)

      raise KindSatchel::InvalidInput.of("out_of_range", "/#{name}", "#{name} is a number from -1 to 1.")
    end

    # @return [String] of at most so many characters, without control characters
    # @raise [KindSatchel::InvalidInput]
    def text(name, text, most = 300)
      text.size <= most ? text : refuse!(name, "#{name} is longer than #{most} characters.")
    end

    # @return [String] one line
    def name(name, text) = KindSatchel::PlainText.line(text(name, text))

    # @return [Array<String>] what stands between commas
    def list(name, text) = text(name, text, LONGEST_LIST).split(",")

    # @return [Array<Integer>]
    # @raise [KindSatchel::InvalidInput]
    def ids(name, text) = list(name, text).map { |one| id(name, one).nonzero? || refuse!(name, "#{name} are numbers.") }
  end

  # By the name of a parameter: how its text is read.
  ADDRESS = {
    "id" => :id, "with" => :text, "version" => :text, "song" => :id, "ids" => :ids,
    "tick" => :whole, "from_tick" => :whole, "to_tick" => :whole, "block_ticks" => :whole, "frames" => :whole,
    "rate" => :whole,
    "width_px" => ->(name, text) { Address.whole(name, text, 1..99_999) }, "value" => :number, "amount" => :number,
    "tracks" => :list, "addresses" => :list, "tags" => :list, "region_ids" => :list,
    "name" => :name, "text" => :text, "address" => :text, "envelope_id" => :text, "track_id" => :text,
    "clip_id" => :text,
    "from_clip_id" => :text, "to_clip_id" => :text, "from_track_id" => :text, "to_track_id" => :text,
    "listened" => :text, "pass" => :text, "token" => :text, "key" => :text, "role" => :text, "splat" => :text,
    "controls" => ->(name, text) { Address.text(name, text, LONGEST_TABLE) }
  }.freeze

  TEXT = ->(value) { value.is_a?(String) && value.size <= 300 }
  LIST = ->(value) { value.is_a?(Array) }
  TABLE = ->(value) { value.is_a?(Hash) }
  # The fields of JSON bodies: what each has to be, and that in words. Edits and documents have schemas of their own
  # besides.
  COUNT = ->(value) { value.is_a?(Integer) && value.between?(0, LARGEST_ID) }
  BODY = {
    "revision" => [COUNT, "a whole number: say which revision of the song this is about"],
    "place" => [COUNT, "a whole number: how many edits are in force"],
    "edit" => [TEXT, "the name of an edit"], "inputs" => [TABLE, "an object"],
    "tab" => [->(value) { value.nil? || (value.is_a?(String) && value.size <= 64) }, "a text of at most 64 characters"],
    "heard" => [LIST, "a list of addresses"],
    "sound" => [->(value) { value.nil? || TABLE.call(value) }, "a stretch of ticks"],
    "address" => [TEXT, "the address of a parameter"], "track_id" => [TEXT, "the id of a track"],
    "peak_db" => [->(value) { value.is_a?(Numeric) && value.to_f.abs <= 1000 }, "a peak in dBFS"],
    "name" => [->(value) { value.nil? || value.is_a?(String) }, "a text"],
    "from" => [->(value) { value.nil? || TEXT.call(value) }, "a text"]
  }.freeze

  # Helpers for routes.
  module Helpers
    # @param name [Symbol, String] of a parameter in the table
    # @return [Object, nil] what it says; nil where it is not given
    # @raise [KindSatchel::InvalidInput]
    def asked(name)
      name = name.to_s
      reader = ADDRESS.fetch(name)
      value = params[name]
      value = value.first if name == "splat"
      return if value.nil?

      Address.refuse!(name, "#{name} is one text.") unless value.is_a?(String)
      reader.is_a?(Symbol) ? Address.public_send(reader, name, value) : reader.call(name, value)
    end

    # The same of what has to be given.
    # @raise [KindSatchel::InvalidInput]
    def asked!(name)
      asked(name) or Address.refuse!(name, "#{name} is missing.")
    end

    # @param data [Hash] the body of a request
    # @return [Hash] the same, a name as it reads
    # @raise [KindSatchel::InvalidInput]
    def told!(data)
      data.each do |name, value|
        fits, words = BODY[name]
        Address.refuse!(name, "#{name} is #{words}.") if fits && !fits.call(value)
      end
      data.key?("name") ? data.merge("name" => KindSatchel::PlainText.line(data["name"])) : data
    end
  end
end
