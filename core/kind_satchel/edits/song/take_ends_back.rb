# frozen_string_literal: true

module KindSatchel
  module Edits
    # Loose ends that were set aside count again.
    module TakeEndsBack
      def self.call(song, input)
        gone, rest = song.set_aside.partition { |one| one.check_id == input[:check] && input[:keys].include?(one.key) }
        raise InvalidInput.of("not_aside", "/keys", "None of these is set aside.") if gone.empty?

        [song.with(set_aside: rest), "take #{PlainText.count(gone.size, 'loose end')} back"]
      end
    end
  end
end
