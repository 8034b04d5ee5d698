# frozen_string_literal: true

module KindSatchel
  module Edits
    # Says how fast a recorded clip is, from where in its sound it begins, whether its pitch is kept (`stretched`) and
    # whether it runs `backwards`. Its length follows: the same sound has more beats at a faster tempo, fewer when it
    # begins later. Regions as long as the clip follow it; others keep their length. With `sound` it plays another one
    # from its start, `seconds` long.
    module SetAudio
      def self.call(song, input)
        clip = song.clip(input[:clip_id])
        unless clip.audio
          raise InvalidInput.of("wrong_kind", "/clip_id",
                                "#{clip.name} is a clip of #{clip.kind}; it plays no sound.")
        end

        audio = clip.audio.with(**input.slice(:bpm, :start_seconds, :stretched, :backwards), **other_sound(input))
        length = length(clip, audio, input[:seconds])
        next_song = song.with_clip(clip.with(audio:, length_ticks: length))
        whole = song.directory.regions_of_clip(clip.id).select do |placed|
          placed.region.length_ticks == clip.length_ticks && placed.region.offset_ticks.zero?
        end
        [whole.reduce(next_song) { |now, placed| resized(now, placed, length) }, words(clip, input)]
      end

      def self.other_sound(input)
        return {} unless input.key?(:sound)
        unless input.key?(:seconds)
          raise InvalidInput.of("bad_request", "/seconds",
                                "Say how many seconds the sound lasts.")
        end

        { sound: input[:sound], start_seconds: input.fetch(:start_seconds, 0.0) }
      end

      def self.words(clip, input)
        return "give #{clip.name} another sound" if input.key?(:sound)
        return "#{input[:stretched] ? 'keep' : 'let go'} the pitch of #{clip.name}" if input.key?(:stretched)
        return "play #{clip.name} #{input[:backwards] ? 'backwards' : 'forwards'}" if input.key?(:backwards)

        "set the #{input.key?(:bpm) ? 'tempo' : 'start'} of #{clip.name}"
      end

      def self.length(clip, audio, whole)
        whole ||= clip.audio.seconds(clip.length_ticks) + clip.audio.start_seconds
        seconds = whole - audio.start_seconds
        raise InvalidInput.of("out_of_range", "/start_seconds", "The sound ends before that.") unless seconds.positive?

        [(seconds * audio.bpm / 60 * Timing::PPQ).round, Clip::SHORTEST_TICKS].max
      end

      def self.resized(song, placed, length)
        region = placed.region.with(length_ticks: length, span_ticks: length)
        Placing.drop(song, song.track(placed.track.id), region)
      end
      private_class_method :other_sound, :words, :length, :resized
    end
  end
end
