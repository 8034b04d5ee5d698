# frozen_string_literal: true

module KindSatchel
  module Heard
    # Raised for a read of more than {Amounts::MOST_PIECES} pieces.
    class TooManyPieces < InvalidInput; end

    # How much everything that acts on a parameter gives, at a tick and over a stretch.
    class Amounts
      # The most pieces one read answers.
      MOST_PIECES = 1_000_000

      # @param acting [Acting]
      def initialize(acting)
        @acting = acting
        @song, @address, @frame = acting.song, acting.address, acting.frame
        @driven = Driven.of(@song, @address, @frame) if acting.lanes.any?(&:trims?)
      end

      # What acts somewhere in a stretch, by role.
      # @return [Hash{String=>Array<Arc>}] each list sorted by `from`, cut to the stretch
      # @raise [TooManyPieces]
      def spans(from, to)
        lists = { "set" => [], "scale" => [], "shift" => [] }
        lanes = @acting.lanes
        if to.positive?
          lanes.each do |lane|
            add(lists, Clocks::Run.new(0, [from, 0].max, to), @acting.lane_source(lane))
          end
        end
        @acting.each_placed([from, 0].max, to) do |source|
          @acting.heard_in(source.region, from, to).each { |start, finish| add_runs(lists, source, start, finish) }
        end
        add_own(lists, from, to) if @frame
        lists.each_value { |list| list.sort_by!(&:from) if @acting.rows.size > 1 || lanes.any? || @frame }
      end

      # What acts at one tick, in the order in which it acts: those that set, the winner last; those that scale; those
      # that shift.
      # @return [Array<Array(Source, Float)>] each with its amount there
      def at(tick)
        found = others_at([tick, 0].max)
        @acting.own_sources.each { |source| found << [source, amount(source, tick)] }
        if found.size < 2
          found
        else
          found.sort_by.with_index { |(source, _), i| [RANKS.fetch(source.envelope.role), source.turn, i] }
        end
      end
      RANKS = Roles::ALL.ids.each_with_index.to_h.freeze

      # The same in numbers: what the winner sets (nil for nobody), what scales (nil for nothing), what shifts.
      # @return [Array(Float, Array<Float>, Array<Float>)]
      def by_role_at(tick)
        found = [nil, nil, nil]
        if @frame || @acting.live_moves? || @address.setting?
          at(tick).each { |source, amount| note(found, source.envelope, amount, tick) }
        else
          @acting.lanes.each { |lane| note(found, lane, lane.at(tick), tick) }
          @acting.rows.each { |row| note_region(found, row.track.region_at(tick), row, tick) }
        end
        found
      end

      # What every envelope that acts in a stretch stays between there.
      # @yieldparam role [String]
      # @yieldparam low [Float]
      # @yieldparam high [Float]
      # @yieldparam throughout [Boolean] whether it acts in all of the stretch
      def each_bound(from, to, &)
        @acting.own_sources.each { |source| each_bound_of(source, from, to, &) }
        from, to = [from, 0].max, [to, 1].max if @frame
        @acting.lanes.each { |lane| yield lane.role, *lane_bounds(lane, from, to), true }
        @acting.each_placed(from, to) { |source| each_bound_of(source, from, to, &) }
      end

      # How many cycles act in a stretch, about: of LFOs, and drawn ones whose limits or depth are moved.
      # @return [Float]
      def cycles(from, to)
        count = @acting.lanes.sum(0.0) { |lane| cycles?(lane) ? cycles_of(@acting.lane_source(lane), from, to) : 0.0 }
        return count unless @acting.clip_envelopes.any? { |envelope| cycles?(envelope) }

        @acting.each_placed(from, to) do |source|
          region = source.region
          if cycles?(source.envelope)
            count += cycles_of(source, [from, region.start_tick].max,
                               [to, region.end_tick].min)
          end
        end
        count
      end

      # What a lane that trims makes of a value: factor and offset; nil for all others.
      # @param tick [Numeric] where, for a knob that is driven
      # @return [Array(Float, Float), nil]
      def line(envelope, tick)
        @driven && envelope.trims? ? @song.trim_line(envelope, @driven.at(tick)) : @song.trim_line(envelope)
      end

      private

      # An envelope with its settings as they are where it sounds.
      # @return [LiveMove]
      def live_move(source)
        frame = @frame if @frame && source.region.equal?(@frame.reach)
        Evaluation.of(@song, (frame || source).region).move(source.envelope)
      end

      def others_at(tick)
        found = @acting.lanes.map { |lane| [source = @acting.lane_source(lane), amount(source, tick)] }
        @acting.each_placed(tick, tick + 1) do |source|
          found << [source, amount(source, tick)] if @acting.heard_in(source.region, tick, tick + 1).any?
        end
        found
      end

      def amount(source, tick)
        return live_move(source).at(source.run_at(tick), tick) if @acting.live?(source.envelope)

        source.envelope.at(source.position(tick))
      end

      def note(found, envelope, amount, tick)
        case envelope.role
        when "set"
          factor, offset = line(envelope, tick)
          found[0] = factor ? (amount * factor) + offset : amount
        when "scale" then (found[1] ||= []) << amount
        else (found[2] ||= []) << amount
        end
      end

      def note_region(found, region, row, tick)
        return if region.nil? || region.muted

        @acting.each_in(region, row) do |clip, envelope|
          note(found, envelope, envelope.at(Clocks.position(region, clip, envelope, tick)), tick)
        end
      end

      def cycles?(envelope) = envelope.lfo? || (@acting.live?(envelope) && envelope.drawn_cycles.positive?)

      def cycles_of(source, from, to)
        envelope, region = source.envelope, source.region
        return envelope.drawn_cycles * (to - from) unless envelope.lfo?

        pace = (region && !envelope.source.free? && envelope.clock_rules.pace(region, source.clip, envelope)) || 1
        pace * (if @acting.live?(envelope)
                  live_move(source).cycles(from,
                                           to)
                else
                  (to - from) / envelope.source.cycle_ticks.to_f
                end)
      end

      def each_bound_of(source, from, to)
        region = source.region
        throughout = region.start_tick <= from && region.end_tick >= to
        Bounds.positions(source, from, to).each do |positions|
          yield source.envelope.role, *bounds(source, positions, from, to), throughout
        end
      end

      # A wave between limits that stay is between them everywhere.
      def lane_bounds(lane, from, to)
        known = @lane_bounds ||= {}.compare_by_identity
        known.fetch(lane) do
          source = @acting.lane_source(lane)
          found = bounds(source, [from, to], from, to)
          steady = lane.lfo? && !lane.trims? && !(@acting.live?(lane) && live_move(source).limits_move?)
          steady ? known[lane] = found : found
        end
      end

      # @param positions [Array(Numeric, Numeric)] in the envelope's own time
      def bounds(source, positions, from, to)
        factor, offset = line(source.envelope, from) || [1.0, 0.0]
        ends = if @acting.live?(source.envelope)
                 live_move(source).bounds(from,
                                          to)
               else
                 Bounds.of(source.envelope, *positions)
               end
        ends.map { |value| (value * factor) + offset }
      end

      def add_runs(lists, source, from, to)
        Clocks.each_run(source.region, source.clip, source.envelope, from, to) { |run| add(lists, run, source) }
      end

      # The frame's own clip, and what all else comes to before tick 0.
      def add_own(lists, from, to)
        @acting.own_sources.each { |source| add_runs(lists, source, from, to) }
        return unless from.negative?

        others_at(0).each do |source, amount|
          factor, offset = line(source.envelope, 0)
          value = factor ? (amount * factor) + offset : amount
          lists.fetch(source.envelope.role) << Level.new(from, [to, 0].min, value, source)
        end
      end

      def add(lists, run, source)
        envelope = source.envelope
        list = lists.fetch(envelope.role)
        if @driven && envelope.trims?
          add_trimmed(list, run, source)
        else
          each_arc(run, source, @song.trim_line(envelope)) { |arc| list << arc }
        end
        too_many! if list.size > MOST_PIECES
      end

      def each_arc(run, source, line, &)
        return live_move(source).each_arc(run, source, line, &) if @acting.live?(source.envelope)

        source.envelope.each_segment(run) do |turn, segment|
          span = Span.new(turn, segment, source, line)
          yield span if span.to > span.from
        end
      end

      # Over a knob that is driven, the lane alone along with what drives it.
      def add_trimmed(list, run, source)
        parameter = @song.parameter(@address)
        knob = Cursor.new(@driven.arcs(run.from, run.to))
        each_arc(run, @acting.lane_source(source.envelope.with(fader: "follow")), nil) do |arc|
          Cursor.each_stretch([knob], arc.from, arc.to) do |from, to|
            list << Trimmed.new(arc, knob.arc, from, to, parameter)
          end
        end
      end

      def too_many!
        raise TooManyPieces.of("too_many_pieces", "/to_tick",
                               "More than #{MOST_PIECES} pieces lie there; ask for a shorter stretch.")
      end
    end
  end
end
