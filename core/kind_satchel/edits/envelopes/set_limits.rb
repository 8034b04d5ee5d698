# frozen_string_literal: true

module KindSatchel
  module Edits
    # Sets the amounts between which an envelope runs, and how much of it acts: `low` and `high` as amounts or as
    # people write them in the parameter's unit; low above high turns it over. `depth` is 0..1 or a percentage.
    module SetLimits
      def self.call(song, input)
        envelope = song.directory.envelope(input[:envelope_id]).envelope
        scale = song.parameter(envelope.target).scale
        limits = %i[low high].zip(envelope.limits).map do |name, current|
          input.key?(name) ? amount(envelope, scale, input[name], "/#{name}") : current
        end
        depth = input.key?(:depth) ? share(input[:depth]) : envelope.depth
        texts = limits.map { |limit| envelope.role_rules.amount_text(scale, limit) }
        words = "run #{song.parameter_name(envelope.target)} from " \
                "#{texts.join(' to ')}#{", depth #{Units::PERCENT.text(depth * 100)}" unless depth == 1}"
        [Envelopes.change(song, envelope.id) { |one| one.with(limits:, depth:) }, words]
      end

      def self.amount(envelope, scale, given, path)
        return given if given.is_a?(Numeric)

        InvalidInput.under(path) { envelope.role_rules.parse(scale, given) }
      end

      def self.share(given)
        return given if given.is_a?(Numeric)

        percent = Units::PERCENT.parse(given)
        return percent / 100.0 if percent&.between?(0, 100)

        raise InvalidInput.of("bad_value", "/depth", "#{given.inspect} is no depth; write it like 40 %.")
      end
      private_class_method :amount, :share
    end
  end
end
