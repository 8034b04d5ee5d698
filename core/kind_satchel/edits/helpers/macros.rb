# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of macros share.
    module Macros
      module_function

      # @param text [String] the address of a knob of a macro strip
      # @return [Address]
      # @raise [InvalidInput] for anything else
      def address!(song, text, path)
        InvalidInput.under(path) do
          address = Address.parse(text)
          raise InvalidInput.of("no_macro", "", "#{text} is a setting of a move, no macro.") if address.setting?

          rules = song.owner(address).device(address.device_id).type_rules
          raise InvalidInput.of("no_macro", "", "#{rules.name} is no macro strip.") unless rules.role == "macros"

          address if rules.parameter(address.parameter_id)
        end
      end

      # @param text [String] the address of what is to be driven
      # @return [Address]
      def target!(song, text, path)
        InvalidInput.under(path) do
          address = Address.parse(text)
          song.parameter(address).automatable!("")
          address
        end
      end

      # One macro with its next form.
      # @yieldparam macro [Macro]
      # @return [Song]
      def change(song, address)
        owner = song.owner(address)
        device = owner.device(address.device_id)
        changed = device.with_macro(yield(device.macro(address.parameter_id)))
        song.with_owner(owner.with(devices: owner.devices.map { |other| other.equal?(device) ? changed : other }))
      end

      # The song without what drives a parameter.
      # @return [Song]
      def freed(song, target)
        song.directory.drivers(target).reduce(song) do |now, driver|
          change(now, driver.macro) do |macro|
            macro.driving(target, nil)
          end
        end
      end

      # @return [String] "Cutoff of Rope Bass"
      def words(song, address) = song.full_name(address)
    end
  end
end
