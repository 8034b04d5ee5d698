# frozen_string_literal: true

module KindSatchel
  module Perform
    # One pass of playing notes in on a track, written into the clips whose regions sound there, at the place of their
    # material. Where no region lies a clip is made, in whole bars. A clip that several regions share gets the notes
    # for all of them.
    #
    # @example
    #   track = song.track("rope-bass")
    #   pass = NotePass.new(song, track, [NotePass::Played.new(1.0, 1.25, 40, 100)], from: 0.0, to: 4.0)
    #   pass.written #=> 1
    class NotePass
      # A note in seconds of the song.
      Played = Struct.new(:start_seconds, :end_seconds, :pitch, :velocity)

      # How many notes were written; what lay past the end of a material that is not repeated and is left out.
      attr_reader :written, :left_out, :clips

      # @param song [Song]
      # @param track [Track] of notes
      # @param played [Array<Played>]
      # @param from [Numeric] seconds of the song, where the pass began
      # @param to [Numeric] where it ended
      # @param replace [Boolean] whether what stood in its way goes; else the notes are added
      # @param whole [Boolean] whether a clip that is made spans the range that repeats; else it spans the notes
      # @param grid_ticks [Integer] starts go to the nearest line of this grid; 0 leaves them as they were played
      # @raise [InvalidInput]
      def initialize(song, track, played, from:, to:, replace: false, whole: false, grid_ticks: 0)
        unless track.kind == "notes"
          raise InvalidInput.of("no_notes_here", "/track_id",
                                "#{track.name} is a #{track.kind} track; it plays no notes.")
        end
        raise InvalidInput.of("too_short", "/to_seconds", "A pass ends after it starts.") unless to > from

        @from, @to = [from, to].map { |seconds| song.tempo.tick_at(seconds).round }
        @replace, @whole, @grid = replace, whole, grid_ticks
        @written, @left_out = 0, 0
        @clips = []
        @song = with_room(song, track.id, played.map { |one| note(song, one) }.sort_by(&:tick))
      end

      # @return [Song]
      attr_reader :song

      private

      # In ticks of the song, inside the pass.
      def note(song, played)
        start, finish = [played.start_seconds, played.end_seconds].map { |seconds| song.tempo.tick_at(seconds).round }
        length = [finish - start, Notes::SHORTEST_TICKS].max
        start = song.meters.line_near(start, @grid) if @grid.positive?
        Note.new(tick: start.clamp(@from, [@to - 1, @from].max), length_ticks: length, pitch: played.pitch,
                 velocity: played.velocity)
      end

      # First clips where none lie, then the notes, so that all have a region.
      def with_room(song, track_id, notes)
        free = notes.reject { |one| song.track(track_id).region_at(one.tick) }
        song = made(song, track_id, free)
        by_region = notes.group_by { |one| song.track(track_id).region_at(one.tick) }
        by_clip = by_region.group_by { |region, _| region.clip_id }
        by_clip.reduce(song) { |now, (id, list)| written_into(now, now.clip(id), track_id, list) }
      end

      def made(song, track_id, free)
        while (first = free.find { |one| song.track(track_id).region_at(one.tick).nil? })
          track = song.track(track_id)
          before, after = gap(track, first.tick)
          inside = free.select { |one| one.tick >= before && one.tick < after }
          song = with_clip(song, track, stretch(song, inside, before, after))
        end
        song
      end

      # The free ticks around a place.
      def gap(track, tick)
        [track.regions.select { |one| one.end_tick <= tick }.map(&:end_tick).max || 0,
         track.regions.find { |one| one.start_tick > tick }&.start_tick || Timing::LAST_TICK]
      end

      # Whole bars around the notes, or around the range they lie in.
      def stretch(song, notes, before, after)
        first, last = notes.first.tick, notes.map { |one| one.tick + one.length_ticks }.max
        if @whole && first.between?(song.range.start_tick, song.range.end_tick)
          first, last = song.range.start_tick, song.range.end_tick
        end
        start = song.meters.start_of(song.meters.bar_at(first)).clamp(before, after)
        finish = [song.meters.rounded_up(last), start + Clip::SHORTEST_TICKS].max
        [start, finish.clamp(start + 1, after)]
      end

      def with_clip(song, track, (start, finish))
        name = Transfer::Clips.free_name(song.clips.each_value.map(&:name), track.name)
        length = [finish - start, Clip::SHORTEST_TICKS].max
        clip = Clip.new(id: "clip-#{song.next_id}", name:, kind: "notes", length_ticks: length, notes: [], audio: nil,
                        envelopes: [])
        region = Region.fresh(id: "region-#{song.next_id + 1}", clip_id: clip.id, start_tick: start,
                              length_ticks: finish - start)
        song = song.with(next_id: song.next_id + 2).with_clip(clip)
        song.with_track(track.with(regions: [*track.regions, region].sort_by(&:start_tick)))
      end

      def written_into(song, clip, track_id, list)
        @clips << clip.name
        touched = list.flat_map { |region, notes| notes.filter_map { |one| placed(one, region, clip) } }
        @written += touched.size
        kept = @replace ? kept(song, clip, track_id) : clip.notes
        song.with_clip(clip.with(notes: Notes.settled(kept, touched)))
      end

      # At the place of the material that sounds there.
      def placed(note, region, clip)
        into = region.offset_ticks + note.tick - region.start_tick
        into %= clip.length_ticks if region.looped
        if into >= clip.length_ticks
          @left_out += 1
          return
        end
        room = [clip.length_ticks - into, Notes::SHORTEST_TICKS].max
        note.with(tick: into, length_ticks: note.length_ticks.clamp(1, room))
      end

      # The notes that do not begin where the pass went over.
      def kept(song, clip, track_id)
        regions = song.track(track_id).regions_in(@from, @to).select { |region| region.clip_id == clip.id }
        swept = regions.flat_map do |region|
          region.passes(clip, [region.start_tick, @from].max, [region.end_tick, @to].min)
        end
        swept = swept.map { |from, to, into| into...(into + to - from) }
        clip.notes.reject { |one| swept.any? { |range| range.cover?(one.tick) } }
      end
    end
  end
end
