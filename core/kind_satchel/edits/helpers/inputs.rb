# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits are told, taken for what it names.
    module Inputs
      module_function

      # @param text [String]
      # @return [String] without blanks around it
      # @raise [InvalidInput] for nothing but blanks
      def name!(text)
        text.strip.tap { |wish| raise InvalidInput.of("bad_name", "/name", "A name is not blank.") if wish.empty? }
      end

      # The role asked for, "set" unless said otherwise.
      # @raise [InvalidInput] for a role the parameter cannot take
      def role(song, address, input)
        input.fetch(:role, "set").tap { |role| song.parameter(address).role_fits!(role, "/role") }
      end

      # @return [Address] of something that may be moved
      # @raise [InvalidInput]
      def target(song, text, path = "/address")
        InvalidInput.under(path) do
          address = Address.parse(text)
          song.parameter(address).automatable!("")
          address
        end
      end

      # @raise [NotFound] for places that hold no point
      def points_at!(envelope, indexes, path)
        faults = indexes.each_with_index.filter_map do |index, i|
          next if index < envelope.points.size

          Fault.new("unknown_point", "#{path}/#{i}",
                    "The envelope has #{envelope.points.size} points; there is none at place #{index}.")
        end
        raise NotFound, faults unless faults.empty?
      end
    end
  end
end
