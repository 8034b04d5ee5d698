# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets notes stray a little in time and velocity, by a seed: the same seed strays the same way.
    module HumaniseNotes
      def self.call(song, input)
        random = Random.new(input.fetch(:seed, 1))
        ticks, velocity = input.fetch(:ticks, 0), input.fetch(:velocity, 0)
        next_song, words = Noting.change(song, input) do |notes|
          notes.map { |note| strayed(note, random, ticks, velocity) }
        end
        [next_song, "humanise #{words}"]
      end

      def self.strayed(note, random, ticks, velocity)
        note.with(tick: [note.tick + random.rand(-ticks..ticks), 0].max,
                  velocity: (note.velocity + random.rand(-velocity..velocity)).clamp(Notes::VELOCITIES))
      end
      private_class_method :strayed
    end
  end
end
