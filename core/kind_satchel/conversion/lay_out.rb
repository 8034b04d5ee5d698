# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Lays clip envelopes out: each becomes points of the lane of its role, over the regions it acts in, and leaves
    # the clips. Since one value is set, then everything scales it, then everything shifts it, wherever it lives, that
    # changes nothing heard. Outside those regions no lane changes. Other regions that share a clip keep theirs.
    class LayOut
      # The song ticks regions cover, as few stretches as can be.
      def self.stretches(regions)
        regions.map { |region| [region.start_tick, region.end_tick] }.sort.each_with_object([]) do |(from, to), list|
          list.any? && from <= list.last[1] ? list.last[1] = [list.last[1], to].max : list << [from, to]
        end
      end

      # @param song [Song]
      # @param placed [Array<Directory::Placed>] the regions; muted ones are left alone
      # @param addresses [Array<Address>, nil] only these
      # @return [Result]
      # @raise [InvalidInput] where there is nothing to lay out, or a lane is switched off
      def self.call(song, placed, addresses: nil) = new(song, placed, addresses).result

      # @raise [InvalidInput]
      def initialize(song, placed, addresses)
        @song = song
        @placed = placed.reject { |one| one.region.muted }
        @only = addresses
        @sources = sources
        if @sources.empty?
          raise InvalidInput.of("nothing_to_lay_out", "/region_ids",
                                "There is no clip envelope at work to lay out.")
        end

        check_lanes
      end

      # @return [Result]
      def result
        changes = without_envelopes(@sources.reduce(@song) { |now, source| with_points(now, source) })
        addresses = Moved.heard(@song, @sources.map { |source| source.envelope.target })
        converted = @sources.map { |source| [source.clip.id, source.envelope] }.uniq.size
        Result.new(song: changes.song, difference: Heard::Difference.of(@song, changes.song, addresses),
                   separated: changes.separated, converted:)
      end

      private

      # Every envelope at work in one of the regions, but those of a clip's own effects, which no lane moves; later
      # ones overrule earlier ones.
      # @return [Array<Heard::Source>]
      def sources
        list = @placed.flat_map do |placed|
          clip = @song.clip(placed.region.clip_id)
          clip.envelopes.select do |envelope|
            at_work?(envelope, clip, placed.track)
          end.map { |envelope| source(placed, clip, envelope) }
        end
        leaving = list.to_h { |source| [source.envelope.id, true] }
        # What moves settings of a move that leaves too is taken in by it.
        list.reject! { |source| source.envelope.target.setting? && leaving.key?(source.envelope.target.device_id) }
        list.sort_by.with_index { |source, i| [source.turn, i] }
      end

      def source(placed, clip, envelope)
        own = !clip.carrier? || placed.track.id == envelope.target.owner_id
        Heard::Source.new("clip", envelope, placed.region, clip,
                          own ? Heard::Acting.own_turn(placed.place) : placed.place)
      end

      def at_work?(envelope, clip, track)
        unless envelope.acts? && (@only.nil? || @only.include?(envelope.target)) && @song.parameter?(envelope.target)
          return false
        end

        envelope.target.clip_id.nil? && clip.reaches?(envelope.target, track)
      end

      def lane_of(song, envelope) = Transfer::Lanes.lane(song, envelope.target, envelope.role)

      def check_lanes
        faults = @sources.map(&:envelope).uniq { |envelope| [envelope.target, envelope.role] }.filter_map do |envelope|
          lane = lane_of(@song, envelope)
          next unmovable(lane) if lane&.on
          next if lane.nil?

          Fault.new("lane_off", "",
                    "The lane of #{@song.parameter(envelope.target).name} is switched off; switch it on or remove it " \
                    "first.")
        end
        raise InvalidInput, faults unless faults.empty?
      end

      # Points that are written cannot come to what they should under settings that move.
      def unmovable(lane) = Moved.fault(@song, lane)

      def with_points(song, source)
        from, to = source.region.start_tick, source.region.end_tick
        song = Transfer::Lanes.with_lane(song, source.envelope.target, source.envelope.role)
        written = Written.in_region(@song, source.region, source.clip, source.envelope)
        lane = fit(lane_of(song, source.envelope), song)
        points = written_on(lane, song, written, from, to)
        Transfer::Lanes.change(song, lane.id) { lane.with(points: Splice.replace(lane.points, from, to, points)) }
      end

      # A lane that is written on gets full limits and full depth; it sounds the same.
      def fit(lane, song)
        return lane.drawn(song.length_ticks) if lane.lfo?

        lane.points.empty? ? Lanes.filled(lane, song) : lane.unlimited
      end

      def written_on(lane, song, written, from, to)
        return Lanes.inverted(lane, song, written) if lane.role == "set"

        Blend.points(lane.role, Splice.between(lane.points, from, to).map do |point|
          point.with(tick: point.tick + from)
        end, written, from, to)
      end

      # Moves of a clip, and all that is drawn there for their settings.
      # @return [Hash{String=>Boolean}]
      def with_settings(clip, ids)
        gone = ids.to_h { |id| [id, true] }
        goes = ->(one) { one.target.setting? && gone.key?(one.target.device_id) && !gone.key?(one.id) }
        while (more = clip.envelopes.find(&goes))
          gone[more.id] = true
        end
        gone
      end

      # @return [ClipChanges]
      def without_envelopes(song)
        changes = ClipChanges.new(song)
        @sources.group_by { |source| source.clip.id }.each do |id, list|
          clip = song.clip(id)
          gone = with_settings(clip, list.map { |source| source.envelope.id })
          regions = list.map { |source| source.region.id }.uniq.map { |region_id| song.directory.region(region_id) }
          changes.change(clip, [[regions, clip.envelopes.reject { |envelope| gone.key?(envelope.id) }]])
        end
        changes
      end
    end

    # What lanes have to hold so that something is heard.
    module Lanes
      module_function

      # An empty lane with the point that changes nothing.
      def filled(lane, song)
        value = lane.role_rules.neutral || song.knob(lane.target)
        lane.bare.with(points: [Point.new(tick: 0, value:, shape: Shapes::Hold::PLAIN)])
      end

      # From what a lane that sets is to make to the points for it: through the knob that trims it.
      def inverted(lane, song, points)
        factor, offset = song.trim_line(lane) || [1.0, 0.0]
        factor = 1.0 if factor.zero?
        return points if factor == 1 && offset.zero?

        points.map do |point|
          value = (point.value - offset) / factor
          Point.new(tick: point.tick, value: value.clamp(0.0, 1.0), shape: point.shape.scaled(1 / factor))
        end
      end

      # What a lane gives, the knob that trims it taken in.
      # @return [Array<Point>]
      def given(lane, song)
        factor, offset = song.trim_line(lane) || [1.0, 0.0]
        points = Written.on_track(song, lane)
        return points if factor == 1 && offset.zero?

        points.map do |p|
          Point.new(tick: p.tick, value: ((p.value * factor) + offset).clamp(0.0, 1.0), shape: p.shape.scaled(factor))
        end
      end

      # A stretch of a lane that changes nothing there: what sets holds what it had come to, the others are neutral.
      def emptied(lane, from, to)
        return lane.with(points: Transfer::Lanes.levelled(lane.points, from, to)) if lane.role == "set"

        full = lane.unlimited
        rest = [from, to].map { |tick| Point.new(tick:, value: lane.role_rules.neutral, shape: Shapes::Hold::PLAIN) }
        full.with(points: Splice.replace(full.points, from, to, rest))
      end
    end
  end
end
