# frozen_string_literal: true

module KindSatchel
  # A list of things found by a stable text id. An unknown id raises and lists the known ones.
  #
  # @example
  #   shapes = Registry.new("shape", "hold" => Shapes::Hold, "straight" => Shapes::Straight)
  #   shapes.fetch("hold") #=> Shapes::Hold
  class Registry
    include Enumerable

    def initialize(word, entries)
      @word = word
      @entries = entries.freeze
      freeze
    end

    # @return [Array<String>]
    def ids = @entries.keys
    def known?(id) = @entries.key?(id)

    # @yieldparam id [String]
    def each(&) = @entries.each(&)

    # @return [String, nil]
    def id_of(entry) = @entries.key(entry)

    # @raise [NotFound] with the known ids in the message
    def fetch(id)
      @entries.fetch(id) do
        raise NotFound.of("unknown_#{@word}", "", "There is no #{@word} #{id.inspect}; there is #{ids.join(', ')}.")
      end
    end
  end
end
