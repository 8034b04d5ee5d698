# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Moves that cannot be rewritten because their own settings are moved.
    module Moved
      module_function

      # @return [Fault, nil]
      def fault(song, envelope, path = "")
        names = song.directory.moved_settings.fetch(envelope.id, []) & Settings.names(envelope)
        return if names.empty?

        Fault.new("settings_moved", path,
                  "The #{names.first} of #{song.owner_name(Address.setting(envelope.id, names.first))} is moved; " \
                  "take that away first.")
      end

      # Where a change of some parameters is heard: their own values, and what hangs on those that are settings.
      # @param addresses [Array<Address>]
      # @return [Array<Address>]
      def heard(song, addresses)
        needs = Needs.new(song)
        addresses.flat_map do |address|
          address.setting? ? needs.needing(address) : [address]
        end.uniq.reject(&:setting?).select { |one| song.parameter?(one) }
      end

      # @raise [InvalidInput]
      def refuse(song, envelope, path = "") = fault(song, envelope, path)&.then { |fault| raise InvalidInput, [fault] }
    end
  end
end
