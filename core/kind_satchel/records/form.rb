# frozen_string_literal: true

module KindSatchel
  # The form of the records that come by the hundred thousand: points and notes. What schemas/song.json says of them
  # is checked here, so that a schema need not walk them; spec/api/schemas_spec.rb holds both to the same refusals.
  module Form
    UNIT = (0..1)
    # What a point may hold beside tick, value and shape.
    SETTINGS = { "curve" => -1..1, "from" => UNIT, "to" => UNIT, "cycles" => 1e-6..1024, "note_ticks" => 15..61_440,
                 "skew" => UNIT,
                 "phase" => UNIT, "foot" => -4..4, "top" => -4..4 }.freeze
    NOTE = { "tick" => 0..Timing::LAST_TICK, "length_ticks" => 1..Timing::LAST_TICK, "pitch" => 0..127,
             "velocity" => 1..127 }.freeze

    module_function

    # @raise [InvalidInput] for what is no record of a point; its tick, value and shape are checked where they are made
    def point!(record)
      fault!("", "A point is a set of named values.") unless record.is_a?(Hash)
      return if record.size == 3 && record.key?("tick") && record.key?("value") && record.key?("shape")

      %w[tick value shape].each { |key| fault!("", "#{key} is missing.") unless record.key?(key) }
      record.each { |key, value| setting!(key, value) }
    end

    # @raise [InvalidInput] unless it is a note
    def note!(record)
      fault!("", "A note is a set of named values.") unless record.is_a?(Hash)
      NOTE.each do |key, range|
        value = record.fetch(key) { fault!("", "#{key} is missing.") }
        unless value.is_a?(Integer) && range.cover?(value)
          fault!("/#{key}", "#{key} is a whole number from #{range.min} to #{range.max}.",
                 "out_of_range")
        end
      end
      (record.keys - NOTE.keys).each { |key| fault!("/#{key}", "#{key} is not known here.") } if record.size > NOTE.size
    end

    def setting!(key, value)
      return if %w[tick value shape].include?(key)
      return wave!(value) if key == "wave"

      range = SETTINGS.fetch(key) { fault!("/#{key}", "#{key} is not known here.") }
      return if key == "note_ticks" && value.nil?

      return if value.is_a?(Numeric) && range.cover?(value)

      fault!("/#{key}", "#{key} is a number from #{range.min} to #{range.max}.",
             "out_of_range")
    end

    def wave!(value)
      Shapes::Cycle::WAVES.key?(value) || fault!("/wave", "A wave is one of: #{Shapes::Cycle::WAVES.keys.join(', ')}.")
    end

    def fault!(path, message, code = "bad_form") = raise(InvalidInput.of(code, path, message))
    private_class_method :setting!, :wave!, :fault!
  end
end
