# frozen_string_literal: true

module KindSatchel
  module Edits
    # Mends loose ends of one kind, all by the same fix. What one fix mends along with its own is not touched again.
    module MendEnds
      def self.call(song, input)
        id, fix = input[:check], input.fetch(:fix, 0)
        rules = Checks::LooseEnds::ALL.fetch(id)
        found = input[:keys] ? EndsOf.named(song, id, input[:keys]) : EndsOf.open(song, id)
        raise InvalidInput.of("nothing_to_mend", "/check", "There is no loose end of this kind.") if found.empty?
        unless fixable?(song, found[0], fix)
          raise InvalidInput.of("no_fix", "/fix", "#{rules.title}: there is no such fix.")
        end

        after = found.reduce(song) { |current, one| mended(current, rules, one, fix) }
        [after, "#{found[0].tell(song).fixes[fix].words.downcase}: #{PlainText.count(found.size, 'loose end')}"]
      end

      def self.mended(song, rules, one, fix)
        return song if rules.respond_to?(:entangled?) && EndsOf.gone?(song, one)

        chosen = one.tell(song).fixes[fix]
        ALL.fetch(chosen.edit).call(song, chosen.inputs.transform_keys(&:to_sym)).first
      end

      def self.fixable?(song, one, fix)
        !Checks::LooseEnds::ALL.fetch(one.check).respond_to?(:outside?) && one.tell(song).fixes[fix]
      end
      private_class_method :mended, :fixable?
    end
  end
end
