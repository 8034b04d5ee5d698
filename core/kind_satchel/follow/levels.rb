# frozen_string_literal: true

module KindSatchel
  module Follow
    # How loud something is over ticks: of the material of a clip, or of a whole track, or of a sound from a tick on.
    # Amplitudes 0..1, of notes their velocity while they last.
    class Levels
      # Of sounds, by key: `"hop_seconds"` and `"energy"`, mean squares of even stretches.
      # @param sounds [Hash{String=>Hash}]
      # @param pitches [Array<Integer>, nil] of the notes that count
      def initialize(song, sounds, pitches)
        @song = song
        @sounds = sounds
        @pitches = pitches
      end

      # @param clip [Clip]
      # @param ticks [Array<Numeric>] places in the material, in order, 0 up to its length
      # @return [Array<Float>]
      def of_clip(clip, ticks)
        return of_notes(clip, ticks) unless clip.audio

        ticks.map { |tick| amplitude(clip.audio.sound, clip.audio.place(tick, clip.length_ticks)) }
      end

      # What sounds on tracks, of some clips or all.
      # @param tracks [Array<Track>]
      # @param clip [Clip, nil]
      # @param ticks [Array<Integer>] of the song, in order
      # @return [Array<Float>]
      def of_tracks(tracks, clip, ticks)
        list = Array.new(ticks.size, 0.0)
        tracks.flat_map(&:regions).each do |region|
          own = @song.clip(region.clip_id)
          next if region.muted || own.carrier? || (clip && own.id != clip.id)

          region.passes(own).each { |pass| add(list, ticks, own, pass) }
        end
        list
      end

      # @param key [String]
      # @param start [Integer] the tick at which it begins
      def of_sound(key, start, ticks)
        zero = @song.tempo.seconds_at(start)
        ticks.map { |tick| amplitude(key, @song.tempo.seconds_at(tick) - zero) }
      end

      private

      def add(list, ticks, clip, (from, to, position))
        first = ticks.bsearch_index { |tick| tick >= from } or return
        last = ticks.bsearch_index { |tick| tick >= to } || ticks.size
        found = of_clip(clip, ticks[first...last].map { |tick| tick - from + position })
        found.each_with_index { |level, i| list[first + i] = level if level > list[first + i] }
      end

      def of_notes(clip, ticks)
        list = Array.new(ticks.size, 0.0)
        clip.notes.each do |note|
          next unless @pitches.nil? || @pitches.include?(note.pitch)

          place = ticks.bsearch_index { |tick| tick >= note.tick } || ticks.size
          level = note.velocity / 127.0
          while place < ticks.size && ticks[place] < note.tick + note.length_ticks
            list[place] = level if level > list[place]
            place += 1
          end
        end
        list
      end

      def amplitude(key, second)
        sound = @sounds[key] or return 0.0
        return 0.0 if second.negative?

        Math.sqrt(sound["energy"][(second / sound["hop_seconds"]).floor] || 0.0)
      end
    end
  end
end
