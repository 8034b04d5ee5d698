# frozen_string_literal: true

module KindSatchel
  # A frozen value: named fields, equal when its fields are equal, `with(...)` makes the next one.
  # A class that has rules overrides `check` and raises {InvalidInput} there, so that no broken value ever exists.
  #
  # @example
  #   Pair = Value.of(:left, :right)
  #   Pair.new(left: 1, right: 2).with(right: 3).right #=> 3
  module Value
    # The largest whole number a field may hold: safe in 32 bits, and over 38 hours in ticks at 120 BPM.
    LARGEST = (2**28) - 1

    # @param names [Array<Symbol>] of the fields
    # @return [Class]
    def self.of(*names) = Struct.new(*names, keyword_init: true) { include Value }

    # A name is one line that reads as it is.
    def initialize(**fields)
      fields[:name] = PlainText.line(fields[:name]) if fields.key?(:name)
      super
      @memo = {}
      check
      freeze
    end

    def check; end

    # @return [Value] this one with some fields changed; itself when nothing was given
    def with(**changes) = changes.empty? ? self : self.class.new(**to_h, **changes)

    # The most that one value remembers, unless its class says otherwise; the oldest is forgotten.
    MOST_REMEMBERED = 12

    # Remembers what a pure method found. Safe because the fields never change.
    def memo(key)
      @memo.fetch(key) do
        @memo.shift if @memo.size >= self.class::MOST_REMEMBERED
        @memo[key] = yield
      end
    end

    private

    def fault!(code, path, message) = raise(InvalidInput.of(code, path, message))

    def whole!(path, number, minimum = 0)
      return if number.is_a?(Integer) && number.between?(minimum, LARGEST)

      fault!("out_of_range", path, "#{number.inspect} is not a whole number from #{minimum} to #{LARGEST}.")
    end

    def number!(path, number, range)
      return if number.is_a?(Numeric) && number.to_f.finite? && range.cover?(number)

      fault!("out_of_range", path, "#{number.inspect} is not a number from #{range.min} to #{range.max}.")
    end
  end
end
