# frozen_string_literal: true

module KindSatchel
  module Devices
    # @return [String] what the part of a kit is called: "Open hat"
    def self.part_name(part) = part.tr("-", " ").capitalize

    # A kind of device: what it is called, what it does (`macros`, `instrument`, `note-effect`, `effect` or
    # `channel`), what it plays (`notes` or `audio`, the kind of its track; nil for an effect), its parameters, the
    # parts of a kit, each with sends of its own, and whether it plays a sound of the store.
    class Type < Value.of(:id, :name, :role, :plays, :parameters, :parts, :samples)
      def initialize(parts: [].freeze, samples: false, **fields) = super

      # In the order of a chain.
      ROLES = %w[macros note-effect instrument effect channel].freeze

      # @yieldparam list [ParameterList]
      def self.define(id, name, role, plays: %w[instrument note-effect].include?(role) ? "notes" : nil,
                      parts: [].freeze, samples: false)
        list = ParameterList.new
        yield list
        new(id:, name:, role:, plays:, parameters: list.to_h.freeze, parts:, samples:)
      end

      # @raise [NotFound]
      def parameter(id)
        parameters.fetch(id) do
          raise NotFound.of("unknown_parameter", "",
                            "#{name} has no parameter #{id.inspect}; it has #{parameters.keys.join(', ')}.")
        end
      end
    end

    # Collects the parameters of a type in the order in which people see them.
    # Defaults are written as people write them and parsed by the scale.
    class ParameterList
      def initialize = @list = {}

      # @return [Hash{String=>Parameter}]
      def to_h = @list

      # 0 to 100 %.
      def share(id, name, default) = add(id, name, Scales::Linear.new(low: 0, high: 100, unit: Units::PERCENT), default)

      # Straight between two natural values.
      def linear(id, name, range, unit, default)
        add(id, name, Scales::Linear.new(low: range.min, high: range.max, unit:), default)
      end

      # Straight, scaled about its middle.
      def bipolar(id, name, range, unit, default)
        add(id, name, Scales::Bipolar.new(low: range.min, high: range.max, unit:), default)
      end

      # The same factor for the same way.
      def log(id, name, range, unit, default)
        add(id, name, Scales::Log.new(low: range.min, high: range.max, unit:), default)
      end

      # A gain; `peak` in dB at its top.
      def fader(id, name, peak, default) = add(id, name, Scales::Fader.new(peak:), default)

      # Whole numbers.
      def steps(id, name, range, unit, default)
        add(id, name, Scales::Steps.new(low: range.min, high: range.max, unit:), default)
      end

      # Note lengths.
      def length(id, name, default) = add(id, name, Scales::NoteLength.all, default)

      # Words, in order.
      def choice(id, name, words, default) = add(id, name, Scales::Steps.choice(words), default)

      # Off and on.
      def switch(id, name, default) = add(id, name, Scales::Switch.new, default)

      # Marks the parameter added last as one that nothing can move by itself.
      # @param reason [String] why, as the end of a sentence
      def fixed(reason)
        id, parameter = @list.to_a.last
        @list[id] = parameter.with(automatable: false, reason:)
      end

      private

      def add(id, name, scale, default)
        @list[id] = Parameter.new(id:, name:, scale:, default: scale.parse(default), automatable: true, reason: nil)
      end
    end
  end
end
