# frozen_string_literal: true

module KindSatchel
  # A device in a track's chain. `values` holds the resting values that differ from the defaults, normalised; `held` the values
  # of parameters that are held by hand, by id: what moves them waits until they are handed back, and the resting value too.
  # `sound` is the digest or the word of a sound of the store, for what plays one; nil for none.
  class Device < Value.of(:id, :type, :values, :held, :sound)
    def initialize(sound: nil, **fields) = super

    def check
      values.freeze
      held.freeze
      check_values("/values", values)
      check_values("/held", held)
    end

    # @return [Devices::Type] for a type this version does not know, one without parameters, which keeps what it holds and is silent
    def type_rules = Devices::TYPES.known?(type) ? Devices::TYPES.fetch(type) : Devices.unknown(type)

    # Whether its type is none that this version knows.
    def unknown? = !Devices::TYPES.known?(type)

    private

    def check_values(path, list)
      list.each do |id, value|
        type_rules.parameter(id) unless unknown? || Devices.send_parts(self, id)
        number!("#{path}/#{id}", value, 0..1)
      end
    end
  end
end
