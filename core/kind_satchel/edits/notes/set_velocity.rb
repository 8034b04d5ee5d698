# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes notes louder or softer: to a velocity, or by an amount.
    module SetVelocity
      def self.call(song, input)
        unless input.key?(:velocity) ^ input.key?(:add)
          raise InvalidInput.of("bad_request", "", "Say either the velocity the notes come to, or how much is added.")
        end

        next_song, words = Noting.change(song, input) do |notes|
          notes.map do |note|
            note.with(velocity: (input[:velocity] || (note.velocity + input[:add])).clamp(Notes::VELOCITIES))
          end
        end
        [next_song, "set the velocity of #{words}"]
      end
    end
  end
end
