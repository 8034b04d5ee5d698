# frozen_string_literal: true

module KindSatchel
  module Transfer
    # What LFOs in clips need where song time is put in or taken out before a region's own time goes on: the phase at
    # which they stood. Without a rate that is moved, or the clock, their phase goes by the place in the clip alone.
    module Phases
      module_function

      # A song from which on a tick all moved, with phases for what would go on otherwise.
      # @param before [Song]
      # @param after [Song]
      # @param tick [Integer] of the song before
      # @param moved [Integer] ticks
      # @return [Song]
      def kept(before, after, tick, moved)
        tracks = after.tracks.map do |track|
          known = before.track(track.id).regions.select { |region| region.end_tick > tick && waves?(before, region) }
          regions = known.reduce(track.regions) do |list, region|
            with_phases(list, [before, after], region, tick, moved)
          end
          regions.equal?(track.regions) ? track : track.with(regions:)
        end
        tracks == after.tracks ? after : after.with(tracks:)
      end

      # The phases of the waves whose run began before a tick.
      # @param region [Region] of the song
      # @param at [Integer] song tick inside it
      # @return [Hash{String => Array(Integer, Float)}] as {Region#phases}
      def current(song, region, at, since)
        clip = song.clip(region.clip_id)
        waves(clip).each_with_object(region.phases.dup) do |envelope, phases|
          live = Heard::LiveMove.of(song, envelope, region) or next
          run = Clocks.enum_for(:each_run, region, clip, envelope, at, at + 1).first
          next unless run.zero < since

          phases[envelope.id] =
            [at - region.start_tick + region.offset_ticks,
             Restarts.phase_record(song, envelope, live.phase(run, at))]
        end
      end

      def with_phases(regions, (before, after), region, tick, moved)
        start = [region.start_tick, tick].max
        phases = current(before, region, start, tick)
        return regions if phases == Region::NO_PHASES

        place = regions.index { |one| one.start_tick == start + moved }
        bare = regions[place].with(phases: phases.reject { |_, (from, _)| from == regions[place].offset_ticks })
        made = goes_on?(after, bare, phases) ? bare : bare.with(phases:)
        made == regions[place] ? regions : regions.dup.tap { |list| list[place] = made }
      end

      # Whether all waves would stand where it begins by themselves.
      def goes_on?(song, bare, phases)
        track = song.directory.region(bare.id).track
        song = song.with_track(track.with(regions: track.regions.map { |one| one.id == bare.id ? bare : one }))
        found = current(song, bare, bare.start_tick, Float::INFINITY)
        waves(song.clip(bare.clip_id)).all? do |envelope|
          from, phase = phases[envelope.id]
          from != bare.offset_ticks || Restarts.same?(song, envelope, phase, found.dig(envelope.id, 1))
        end
      end

      def waves?(song, region) = waves(song.clip(region.clip_id)).any?
      def waves(clip) = clip.memo(:waves) { clip.envelopes.select(&:lfo?) }
      private_class_method :with_phases, :goes_on?, :waves?, :waves
    end
  end
end
