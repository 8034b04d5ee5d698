# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Makes one clip, as long as the stretch they cover, of what regions of a track play: repeats, places and gaps are
    # written out, the moves with them. One region that plays its sound once is cropped the same way. The clips
    # themselves stay as they are.
    #
    # A move that sets in some of the regions only is filled up elsewhere with what its lane, or else its knob, gives
    # there.
    class OneClip
      # @param song [Song]
      # @param placed [Array<Directory::Placed>] in order of time
      # @return [Result]
      # @raise [InvalidInput] for regions that cannot be one
      def self.call(song, placed) = new(song, placed).result

      def initialize(song, placed)
        @song = song
        @placed = placed
        @track = placed.first.track
        @regions = placed.map(&:region)
        @clips = @regions.map { |region| song.clip(region.clip_id) }
        @each_once = @clips.uniq(&:id)
        @from, @to = @regions.first.start_tick, @regions.last.end_tick
        check
      end

      # @return [Result]
      def result
        song = placed_once
        Result.new(song:, difference: Heard::Difference.of(@song, song, heard), separated: [], left:)
      end

      private

      def left
        @each_once.flat_map(&:envelopes).reject(&:acts?).map { |envelope| @song.parameter_name(envelope.target) }.uniq
      end

      def placed_once
        model = @clips.first.with(length_ticks: @to - @from, notes:, audio:, envelopes:)
        copy, song = Transfer::Clips.own_copy(@song, model, followed: false)
        song = song.with_clip(copy)
        gone = @regions.drop(1).to_h { |region| [region.id, true] }
        regions = @track.regions.reject do |region|
          gone.key?(region.id)
        end.map { |region| region.id == @regions.first.id ? one(region, copy) : region }
        song.with_track(song.track(@track.id).with(regions:))
      end

      def one(region, clip)
        Region.fresh(id: region.id, clip_id: clip.id, start_tick: @from,
                     length_ticks: @to - @from).with(muted: region.muted)
      end

      def each_pass(&)
        @regions.zip(@clips) { |region, clip| region.passes(clip).each { |pass| yield clip, *pass } }
      end

      # As they are heard: cut where the material begins again or the region ends.
      def notes
        list = []
        each_pass do |clip, from, to, into|
          clip.notes.each do |note|
            start = from + note.tick - into
            next unless start >= from && start < to

            list << note.with(tick: start - @from, length_ticks: [note.length_ticks, to - start].min)
          end
          if list.size > Notes::MOST
            fault("too_many", "They play more than #{Notes::MOST} notes; one clip holds no more.")
          end
        end
        Notes.in_order(list)
      end

      def audio
        sound = @clips.first.audio or return
        into = @regions.first.passes(@clips.first).first[2]
        sound.cut(into, into + @to - @from, @clips.first.length_ticks)
      end

      def envelopes
        @envelopes ||= @each_once.flat_map do |clip|
          moves_of(clip)
        end.uniq { |envelope| [envelope.target, envelope.role] }.map do |first|
          points = Splice.chain(stretches.map { |from, to, region, clip| written(first, from, to, region, clip) })
          Envelope.fresh(id: first.id, target: first.target, role: first.role, points: Written.shifted(points, -@from))
        end
      end

      # What moves settings of its own moves is taken in by these.
      def moves_of(clip) = clip.envelopes.select { |envelope| envelope.acts? && !clip.own_setting?(envelope.target) }

      # The regions and the gaps between them.
      def stretches
        at = @from
        @regions.zip(@clips).flat_map do |region, clip|
          gap = region.start_tick > at ? [[at, region.start_tick, nil, nil]] : []
          at = region.end_tick
          [*gap, [region.start_tick, at, region, clip]]
        end
      end

      def written(first, from, to, region, clip)
        envelope = clip&.envelope_for(first.target, first.role)
        return Written.in_region(@song, region, clip, envelope) if envelope&.acts?

        first.role == "set" ? rest(first.target, from, to) : level(first.role_rules.neutral, from, to)
      end

      # What is set where no clip sets.
      def rest(address, from, to)
        return level(0.0, from, to) unless @song.parameter?(address)

        lane = @song.lanes_of(address).find { |one| one.role == "set" && one.acts? }
        return unmoved(address, from, to) unless lane

        Written.shifted(Splice.between(Lanes.given(lane, @song), from, to), from)
      end

      # The knob, or what a macro makes of it.
      def unmoved(address, from, to)
        driven = Heard::Resolver.new(@song, address).driven or return level(@song.knob(address), from, to)
        Written.of_arcs(driven.arcs(from, to), 0.0..1.0) { |tick, value| [tick.round, value] }
      end

      def level(value, from, to) = [from, to].map { |tick| Point.new(tick:, value:, shape: Shapes::Hold::PLAIN) }

      # Moves of a clip's own effects go with the clip; they are the same there.
      def heard = envelopes.map(&:target).uniq.select { |address| address.clip_id.nil? && @song.parameter?(address) }

      def check
        check_place
        kinds = @clips.map(&:kind).uniq
        fault("wrong_kind", "Clips of #{kinds.join(' and of ')} cannot be one.") if kinds.size > 1
        effects = @each_once.size > 1 && @each_once.any? { |clip| clip.devices.any? }
        fault("own_effects", "A clip with effects of its own becomes one with itself only.") if effects
        fault("partly_muted", "Some of them are muted and some are not.") if @regions.map(&:muted).uniq.size > 1
        return unless kinds == ["audio"]

        passes = @regions.zip(@clips).sum { |region, clip| region.passes(clip).size }
        return unless passes > 1

        fault("plays_again",
              "Sound that plays more than once cannot be written as one clip; choose a region that plays it once.")
      end

      def check_place
        if @placed.map { |one| one.track.id }.uniq.size > 1
          fault("other_tracks",
                "They lie on different tracks; one clip is made of regions of one track.")
        end
        between = @track.regions_in(@from, @to) - @regions
        return unless between.any?

        fault("not_neighbours",
              "#{@song.clip(between.first.clip_id).name} lies between them; choose it too.")
      end

      def fault(code, text) = raise(InvalidInput.of(code, "/region_ids", text))
    end
  end
end
