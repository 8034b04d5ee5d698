# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a clip another name, colour or length. With another length its loops repeat at another pace; notes past the end are kept,
    # and not heard.
    module SetClip
      def self.call(song, input)
        clip = song.clip(input[:clip_id])
        changes = input.slice(:hue, :length_ticks)
        changes[:name] = Moves.name!(input[:name]) if input.key?(:name)
        raise InvalidInput.of("bad_request", "", "Say what of the clip changes: name, hue or length_ticks.") if changes.empty?

        [song.with_clip(clip.with(**changes)), words(clip, changes)]
      end

      def self.words(clip, changes)
        return "call #{clip.name} #{changes[:name]}" if changes.keys == [:name]

        changes.key?(:length_ticks) ? "make #{clip.name} another length" : "colour #{clip.name}"
      end
      private_class_method :words
    end
  end
end
