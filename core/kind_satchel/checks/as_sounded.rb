# frozen_string_literal: true

require "digest"

module KindSatchel
  module Checks
    # What tells what a follower followed from anything else, as it sounded: the notes or the sound, where they begin
    # and end from the follower's own start, and the tempo at its place. Where that is another now, the follower was
    # made from something that has changed.
    module AsSounded
      module_function

      # @param home [Directory::Home] of an envelope that follows
      # @return [String, nil] nil where what it followed is not there
      def digest(song, home)
        kind, id = home.envelope.source.of.first
        base = base(song, home)
        list = kind == "sound" ? [id, clock(song, base, length(song, home))] : followed(song, home, kind, id, base)
        list && Digest::SHA256.hexdigest(JSON.generate([song.tempo.bpm_at(base).round(9), list]))[0, 16]
      end

      # Whether it differs from what it was when the points were made; not known of those made by older versions.
      def stale?(song, home)
        source = home.envelope.source
        home.envelope.followed? && !source.sounded.nil? && source.sounded != digest(song, home)
      end

      # Where a follower's own time begins: a lane's with its first point, a clip's where it lies first.
      # @return [Integer] song tick
      def base(song, home)
        return home.envelope.points.first&.tick || 0 if home.track

        placed = song.directory.regions_of_clip(home.clip.id).map(&:region).min_by(&:start_tick)
        placed ? [placed.start_tick - placed.offset_ticks, 0].max : 0
      end

      def length(song, home) = home.clip ? home.envelope.own_length_ticks || home.clip.length_ticks : song.length_ticks

      def followed(song, home, kind, id, base)
        pitches = home.envelope.source.pitches
        if kind == "clip_id"
          clip = song.clips[id] or return
          return material(clip, pitches) if home.clip
        end
        track = kind == "track_id" ? song.directory.tracks[id] || return : nil
        stretch = home.clip ? [base, base + length(song, home)] : [0, song.length_ticks]
        (track ? [track] : song.tracks).flat_map { |one| soundings(song, one, stretch, base, only: clip, pitches:) }
      end

      # What sounds of a track in a stretch, from its start, whatever regions it is cut into.
      def soundings(song, track, (from, to), base, only:, pitches:)
        passes = track.regions_in(from, to).reject(&:muted).flat_map do |region|
          clip = song.clip(region.clip_id)
          next [] if clip.carrier? || (only && only.id != clip.id)

          region.passes(clip, from, to).map do |start, finish, position|
            [start - base, finish - base, position, material(clip, pitches)]
          end
        end
        joined(passes)
      end

      # Passes that go on in each other are one.
      def joined(passes)
        passes.each_with_object([]) do |pass, list|
          last = list.last
          goes_on = last && last[1] == pass[0] && last[3] == pass[3] && last[2] + last[1] - last[0] == pass[2]
          goes_on ? list[-1] = [last[0], pass[1], last[2], last[3]] : list << pass
        end
      end

      # Remembered with a clip, which an edit seldom changes.
      def material(clip, pitches)
        clip.memo([:as_sounded, pitches]) do
          notes = clip.notes.select { |note| pitches.nil? || pitches.include?(note.pitch) }
          text = JSON.generate([clip.length_ticks, clip.audio && Records.audio(clip.audio), notes.map do |note|
            Records.note(note).values
          end])
          Digest::SHA256.hexdigest(text)[0, 16]
        end
      end

      # The seconds of a stretch, from its start.
      def clock(song, from, length)
        zero = song.tempo.seconds_at(from)
        [from, *song.tempo.changes(from, from + length), from + length].map do |tick|
          [(tick - from).round(6), (song.tempo.seconds_at(tick) - zero).round(9)]
        end
      end
      private_class_method :length, :followed, :soundings, :joined, :material, :clock
    end
  end
end
