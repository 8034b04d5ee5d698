# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives a clip another name, colour, length or time signature of its own (`meter`, nil for that of the song). With
    # another length its loops repeat at another pace; notes past the end are kept, and not heard.
    module SetClip
      def self.call(song, input)
        clip = song.clip(input[:clip_id])
        changes = input.slice(:hue, :length_ticks)
        changes[:name] = Inputs.name!(input[:name]) if input.key?(:name)
        if input.key?(:meter)
          changes[:meter] = input[:meter] && InvalidInput.under("/meter") { Records.read_meter(input[:meter]) }
        end
        if changes.empty?
          raise InvalidInput.of("bad_request", "",
                                "Say what of the clip changes: name, hue, length_ticks or meter.")
        end

        [song.with_clip(clip.with(**changes)), words(clip, changes)]
      end

      def self.words(clip, changes)
        return "call #{clip.name} #{changes[:name]}" if changes.keys == [:name]

        return meter_words(clip, changes[:meter]) if changes.keys == [:meter]

        changes.key?(:length_ticks) ? "make #{clip.name} another length" : "colour #{clip.name}"
      end

      def self.meter_words(clip, meter)
        meter ? "count #{clip.name} in #{meter.beats}/#{meter.unit}" : "count #{clip.name} as the song"
      end
      private_class_method :words, :meter_words
    end
  end
end
