# frozen_string_literal: true

module KindSatchel
  # One thing that is wrong with an input.
  #
  # `code` is a stable word for programs, `path` says where (JSON Pointer style, `/points/3/value`),
  # `message` is a sentence for people.
  Fault = Struct.new(:code, :path, :message) do
    # @return [Fault] the same, of a place further out
    def under(prefix) = Fault.new(code, "#{prefix}#{path}", message)

    # @return [String] "/points/3/value: The value 2 lies outside 0..1."
    def to_s = path.empty? ? message : "#{path}: #{message}"
  end

  # The root of everything the core raises on purpose.
  class Error < StandardError; end

  # Raised when a value or an input breaks a rule; carries every fault that was found, not just the first.
  class InvalidInput < Error
    attr_reader :faults

    # @param faults [Array<Fault>]
    def initialize(faults)
      @faults = faults
      super(faults.join("; "))
    end

    # @example
    #   InvalidInput.of("out_of_range", "/value", "2 lies outside 0..1.").message #=> "/value: 2 lies outside 0..1."
    def self.of(code, path, message) = new([Fault.new(code, path, message)])

    # Runs the block; what is wrong in it is said of a place further out.
    # @param path [String] put before the path of each fault
    # @raise [InvalidInput] of the class that was raised inside
    def self.under(path)
      yield
    rescue InvalidInput => e
      raise(e.class, e.faults.map { |fault| fault.under(path) })
    end
  end

  # Raised when an id names nothing in the song, the catalogue or a registry (deleted things included).
  class NotFound < InvalidInput; end

  # Gathers the faults of many parts, so that a reader of big input can report all of them at once.
  class Faults
    # More than these help nobody.
    MOST = 50

    def initialize = @list = []

    def full? = @list.size >= MOST

    # Notes a fault, as long as there is room.
    def add(code, path, message) = (@list << Fault.new(code, path, message) unless full?)

    # Runs the block; a fault raised inside is kept under `path` and nil comes back.
    def within(path)
      yield
    rescue InvalidInput => e
      @list.concat(e.faults.first(MOST - @list.size).map { |fault| fault.under(path) })
      nil
    end

    # @raise [InvalidInput] when anything was gathered
    def raise_any = @list.empty? ? nil : raise(InvalidInput, @list)
  end
end
