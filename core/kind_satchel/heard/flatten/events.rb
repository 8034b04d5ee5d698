# frozen_string_literal: true

module KindSatchel
  module Heard
    # The notes and audio of a stretch of song, in seconds, for a sound engine.
    #
    # What began before the stretch and still sounds in it comes too, so that playing from the middle sounds the
    # way playing from the top would. A loop is played at the song's tempo over its own: faster is also higher,
    # unless its pitch is kept. One that runs backwards begins at the second that is given and goes down from there.
    #
    # @example
    #   Events.new(song).in_range(0, 960).first["kind"] #=> "note"
    class Events
      def initialize(song)
        @song = song
        @tempo = song.tempo
      end

      # @param from [Integer] first tick
      # @param to [Integer] the tick after the last
      # @return [Array<Hash>] sorted by start
      def in_range(from, to)
        @song.tracks.flat_map { |track| of_track(track, from, to) }.sort_by { |event| event["start_seconds"] }
      end

      private

      def of_track(track, from, to)
        effects = NoteEffects.new(@song, track)
        return effected(effects, track, from, to) if effects.any?

        track.regions_in(from, to).flat_map { |region| of_region(track, region, from, to) }
      end

      # What note effects make of the notes, from a little earlier on, so that what they began before is there too.
      def effected(effects, track, from, to)
        early = [from - NoteEffects::REACH_TICKS, 0].max
        notes = track.regions_in(early, to).flat_map { |region| soundings(track, region, early, to) }
        effects.played(notes, from, to).select { |note| note.finish > from && note.start < to }.map do |note|
          event("note", track, note.region, note.start, note.finish)
            .merge("pitch" => note.pitch, "velocity" => note.velocity)
        end
      end

      def soundings(track, region, from, to)
        of_region(track, region, from, to).map do |event|
          NoteEffects::Sounding.new(event["start_tick"], event["end_tick"], event["pitch"], event["velocity"], region)
        end
      end

      def of_region(track, region, from, to)
        return [] if region.muted

        clip = @song.clip(region.clip_id)
        region.passes(clip, *reach(region, clip, from, to)).flat_map do |pass|
          next [] if pass[1] <= from || pass[0] >= to

          clip.audio ? [audio_event(track, region, clip, pass)] : note_events(track, region, clip, pass, [from, to])
        end
      end

      # Passes that sound in a stretch are given from their own start on.
      def reach(region, clip, from, to)
        return [region.start_tick, region.end_tick] unless region.looped

        zero = region.start_tick - region.offset_ticks
        [[from - ((from - zero) % clip.length_ticks), region.start_tick].max, to + clip.length_ticks]
      end

      def note_events(track, region, clip, (pass_from, pass_to, position), (from, to))
        clip.notes.filter_map do |note|
          start = pass_from + note.tick - position
          finish = [start + note.length_ticks, pass_to].min
          next if start < pass_from || start >= pass_to || finish <= from || start >= to

          event("note", track, region, start, finish).merge("pitch" => note.pitch, "velocity" => note.velocity)
        end
      end

      def audio_event(track, region, clip, (pass_from, pass_to, position))
        audio = clip.audio
        ways = %w[stretched backwards].select { |way| audio[way] }.to_h { |way| [way, true] }
        event("audio", track, region, pass_from, pass_to).merge(
          "sound" => audio.sound, "into_seconds" => audio.place(position, clip.length_ticks),
          "rate" => @tempo.bpm_at(pass_from) / audio.bpm,
          **rates(clip, pass_from, pass_to), **ways
        )
      end

      # While the tempo moves, so does the speed, so that every beat of the loop falls on one of the song.
      def rates(clip, from, to)
        return {} if @tempo.changes(from, to).empty? && @tempo.bpm_at(from) == @tempo.bpm_before(to)

        { "rates" => Beat.tempos(@tempo, from, to).flat_map { |second, bpm| [second, bpm / clip.audio.bpm] } }
      end

      def event(kind, track, region, start, finish)
        { "kind" => kind, "track_id" => track.id, "region_id" => region.id, "clip_id" => region.clip_id,
          "start_tick" => start, "end_tick" => finish,
          "start_seconds" => @tempo.seconds_at(start), "end_seconds" => @tempo.seconds_at(finish) }
      end
    end
  end
end
