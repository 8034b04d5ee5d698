# frozen_string_literal: true

module KindSatchel
  module Devices
    # A kind of device: what it is called, what it does (`instrument`, `effect` or `channel`), what an instrument plays (`notes` or
    # `audio`, the kind of its track), and its parameters.
    class Type < Value.of(:id, :name, :role, :plays, :parameters)
      # @yieldparam list [ParameterList]
      def self.define(id, name, role, plays: role == "instrument" ? "notes" : nil)
        list = ParameterList.new
        yield list
        new(id:, name:, role:, plays:, parameters: list.to_h.freeze)
      end

      # @raise [NotFound]
      def parameter(id)
        parameters.fetch(id) do
          raise NotFound.of("unknown_parameter", "", "#{name} has no parameter #{id.inspect}; it has #{parameters.keys.join(', ')}.")
        end
      end
    end

    # Collects the parameters of a type in the order in which people see them.
    # Defaults are written as people write them and parsed by the scale.
    class ParameterList
      def initialize = @list = {}
      def to_h = @list

      def share(id, name, default) = add(id, name, Scales::Linear.new(low: 0, high: 100, unit: Units::PERCENT), default)
      def linear(id, name, range, unit, default) = add(id, name, Scales::Linear.new(low: range.min, high: range.max, unit:), default)
      def bipolar(id, name, range, unit, default) = add(id, name, Scales::Bipolar.new(low: range.min, high: range.max, unit:), default)
      def log(id, name, range, unit, default) = add(id, name, Scales::Log.new(low: range.min, high: range.max, unit:), default)
      def fader(id, name, peak, default) = add(id, name, Scales::Fader.new(peak:), default)
      def steps(id, name, range, unit, default) = add(id, name, Scales::Steps.new(low: range.min, high: range.max, unit:), default)
      def choice(id, name, words, default) = add(id, name, Scales::Steps.choice(words), default)
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
