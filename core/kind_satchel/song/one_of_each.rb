# frozen_string_literal: true

module KindSatchel
  # For one parameter a place (a track's lanes, a clip's envelopes) has at most one envelope of each role that is on.
  # Further ones, which old songs may bring, are kept switched off.
  module OneOfEach
    module_function

    # @param envelopes [Array<Envelope>]
    # @raise [InvalidInput]
    def check(envelopes, path)
      return if envelopes.size < 2

      again = again(envelopes)
      return if again.empty?

      raise(InvalidInput, again.map do |envelope, place|
        Fault.new("second_of_role", "#{path}/#{place}/role",
                  "A second envelope that #{envelope.role}s #{envelope.target}; there may be one of each role, " \
                  "switch it off.")
      end)
    end

    # @return [Array<Envelope>] with further ones of a role switched off
    def kept(envelopes)
      extra = again(envelopes).to_h { |envelope, _| [envelope.id, true] }
      if extra.empty?
        envelopes
      else
        envelopes.map { |envelope| extra.key?(envelope.id) ? envelope.with(on: false) : envelope }
      end
    end

    # Those that are on though one of their role is on before them, each with its place.
    def again(envelopes)
      seen = {}
      envelopes.each_with_index.reject do |envelope, _|
        next true unless envelope.on

        known = seen.key?(key = [envelope.target, envelope.role])
        seen[key] = true
        !known
      end
    end
    private_class_method :again
  end
end
