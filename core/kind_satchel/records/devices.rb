# frozen_string_literal: true

module KindSatchel
  # Devices and the macros on them.
  module Records
    module_function

    # @return [Hash]
    def device(value)
      { "id" => value.id, "type" => value.type, "values" => value.values.sort.to_h, "held" => value.held.sort.to_h,
        **(value.sound ? { "sound" => value.sound } : {}), **macros(value) }
    end

    # @return [Array<Hash>]
    def macros(value) = value.macros.empty? ? {} : { "macros" => value.macros.map { |one| macro(one) } }

    # @return [Hash]
    def macro(value)
      { "id" => value.id, "name" => value.name, "drives" => value.drives.map do |one|
        { "target" => one.target.to_s, "stops" => one.stops }
      end }
    end

    # @return [Macro]
    # @raise [InvalidInput]
    def read_macro(record)
      drives = each(record["drives"], "/drives") do |one|
        Drive.new(target: Address.parse(one["target"]), stops: one["stops"])
      end
      Macro.new(id: record["id"], name: record["name"], drives:)
    end

    # @return [Device]
    # @raise [InvalidInput]
    def read_device(record)
      macros = record.key?("macros") ? each(record["macros"], "/macros") { |one| read_macro(one) } : Device::NO_MACROS
      Device.new(id: record["id"], type: record["type"], values: record["values"], held: record["held"],
                 sound: record["sound"], macros:)
    end
  end
end
