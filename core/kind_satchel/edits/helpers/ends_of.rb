# frozen_string_literal: true

module KindSatchel
  module Edits
    # Loose ends by their names.
    module EndsOf
      module_function

      # @param id [String] of a check
      # @return [Array<Checks::LooseEnds::Found>] those that were not put aside
      def open(song, id) = Checks::LooseEnds.of_check(song, id).reject { |one| song.aside(id, one.key) }

      # @param id [String] of a check
      # @param keys [Array<String>]
      # @return [Array<Checks::LooseEnds::Found>]
      # @raise [InvalidInput] for what is none; of what the song alone does not tell anything is believed
      def named(song, id, keys)
        found = Checks::LooseEnds.of_check(song, id).to_h { |one| [one.key, one] }
        believed = Checks::LooseEnds::ALL.fetch(id).respond_to?(:outside?)
        keys.uniq.each_with_index.map do |key, i|
          next Checks::LooseEnds::Found.new(id, key, []) if believed

          found.fetch(key) do
            raise InvalidInput.of("unknown_end", "/keys/#{i}", "There is no such loose end in the song.")
          end
        end
      end

      # @param one [Checks::LooseEnds::Found]
      def gone?(song, one) = Checks::LooseEnds.of_check(song, one.check).none? { |other| other.key == one.key }
    end
  end
end
