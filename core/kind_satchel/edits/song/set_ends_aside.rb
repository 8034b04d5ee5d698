# frozen_string_literal: true

module KindSatchel
  module Edits
    # Says of loose ends that they are meant to be so: they count no more, and wait below with the reason.
    module SetEndsAside
      def self.call(song, input)
        id, reason = input[:check], input.fetch(:reason, "").strip
        found = EndsOf.named(song, id, input[:keys])
        marks = found.map { |one| SetAside.new(check_id: id, key: one.key, reason:) }
        rest = song.set_aside.reject { |one| one.check_id == id && input[:keys].include?(one.key) }
        if rest.size + marks.size > SetAside::MOST
          raise InvalidInput.of("too_many", "/keys",
                                "A song keeps at most #{SetAside::MOST} loose ends that are set aside.")
        end

        [song.with(set_aside: rest + marks), "set #{PlainText.count(marks.size, 'loose end')} aside"]
      end
    end
  end
end
