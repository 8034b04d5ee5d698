# frozen_string_literal: true

module KindSatchel
  # A device in a track's chain. `values` holds the resting values that differ from the defaults, normalised; `held`
  # the values of parameters that are held by hand, by id: what moves them waits until they are handed back, and the
  # resting value too. `sound` is the digest or the word of a sound of the store, for what plays one; nil for none.
  # `macros` are the knobs of a macro strip that have a name of their own or drive something.
  class Device < Value.of(:id, :type, :values, :held, :sound, :macros)
    NO_MACROS = [].freeze

    def initialize(sound: nil, macros: NO_MACROS, **fields) = super

    def check
      values.freeze
      held.freeze
      macros.freeze
      check_macros unless macros.empty?
      check_values("/values", values)
      check_values("/held", held)
    end

    # @return [Devices::Type] for a type this version does not know, one without parameters, which keeps what it holds
    #   and is silent
    def type_rules = Devices::TYPES.known?(type) ? Devices::TYPES.fetch(type) : Devices.unknown(type)

    # @param id [String] of a macro strip's parameter
    # @return [Macro] as it is, or as it begins
    def macro(id)
      macros.find { |one| one.id == id } || Macro.new(id:, name: type_rules.parameter(id).name, drives: [])
    end

    # The same device with one macro as it is now.
    # @param macro [Macro]
    def with_macro(macro)
      plain = macro.drives.empty? && macro.name == type_rules.parameter(macro.id).name
      with(macros: [*macros.reject do |one|
        one.id == macro.id
      end, *(plain ? [] : [macro])].sort_by { |one| type_rules.parameters.keys.index(one.id) })
    end

    # Whether its type is none that this version knows.
    def unknown? = !Devices::TYPES.known?(type)

    private

    def check_macros
      fault!("no_macros", "/macros", "#{type_rules.name} has no macros.") unless type_rules.role == "macros"
      macros.each { |macro| type_rules.parameter(macro.id) }
      return unless macros.map(&:id).uniq.size < macros.size

      fault!("duplicate_id", "/macros",
             "Each knob of a macro strip is there once.")
    end

    def check_values(path, list)
      list.each do |id, value|
        type_rules.parameter(id) unless unknown? || Devices.send_parts(self, id)
        number!("#{path}/#{id}", value, 0..1)
      end
    end
  end
end
