# frozen_string_literal: true

module KindSatchel
  # A list of things found by a stable text id. An unknown id raises and lists the known ones.
  #
  # @example
  #   SHAPES = Registry.new("shape", "hold" => Hold, "straight" => Straight)
  #   SHAPES.fetch("hold")
  class Registry
    include Enumerable

    def initialize(word, entries)
      @word = word
      @entries = entries.freeze
      freeze
    end

    def ids = @entries.keys
    def known?(id) = @entries.key?(id)
    def each(&) = @entries.each(&)
    def id_of(entry) = @entries.key(entry)

    # @raise [NotFound] with the known ids in the message
    def fetch(id)
      @entries.fetch(id) do
        raise NotFound.of("unknown_#{@word}", "", "There is no #{@word} #{id.inspect}; there is #{ids.join(', ')}.")
      end
    end
  end
end
