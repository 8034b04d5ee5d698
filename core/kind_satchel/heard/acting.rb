# frozen_string_literal: true

module KindSatchel
  module Heard
    # Raised for a read of more than {Acting::MOST_PIECES} pieces.
    class TooManyPieces < InvalidInput; end

    # Everything that acts on one parameter of a song, in a {Frame}.
    #
    # One value is set: by the lane, overruled by the region on the parameter's own track and by a move's own region, overruled by carrier
    # clips elsewhere, further down the tracks later. Of a setting of a clip's move the own track is the first of those its clip lies on.
    # Then everything scales it, then everything shifts it. A clip of notes or audio moves its own track, effects of its own and settings of
    # its own moves, only.
    class Acting
      # The most pieces one read answers.
      MOST_PIECES = 1_000_000
      LANE = -2
      OWN = -1
      # When what lies on a parameter's own track, or a move's own region, comes: after the lane, before carriers elsewhere.
      # @param place [Integer] of the track
      # @return [Float] below 0
      def self.own_turn(place) = OWN + place.fdiv(Value::LARGEST)

      NO_LIST = [].freeze

      # @param song [Song]
      # @param address [Address]
      # @param except [Array<String>] ids of envelopes that are left out
      # @param waiting [Boolean] what would act if no hand held the parameter
      # @param frame [Frame, nil] nil for the song
      def initialize(song, address, except: [], waiting: false, frame: nil)
        @song = song
        @address = address
        @except = except
        @frame = frame unless frame.nil? || !frame.region?
        @held = !waiting && !song.held_value(address).nil?
        @lanes = @held ? NO_LIST : acting(song.lanes_of(address))
        @moves = @held ? {} : moves
        @rows = @moves.empty? ? NO_LIST : rows
        @own = own
        @live = live
        @driven = Driven.of(song, address, @frame) if @lanes.any?(&:trims?)
      end

      def held? = @held

      # Whether something acts whose settings are moved, or that goes by the clock.
      def live_moves? = !@live.nil?

      # Whether nothing ever acts on it, no hand either.
      def idle? = !@held && @lanes.empty? && @moves.empty?

      # What acts somewhere in a stretch, by role.
      # @return [Hash{String=>Array<Arc>}] each list sorted by `from`, cut to the stretch
      # @raise [InvalidInput] for more than {MOST_PIECES}
      def spans(from, to)
        lists = { "set" => [], "scale" => [], "shift" => [] }
        @lanes.each { |lane| add(lists, Clocks::Run.new(0, [from, 0].max, to), lane_source(lane)) } if to.positive?
        each_placed([from, 0].max, to) do |source|
          answering(source.region, from, to).each { |start, finish| add_runs(lists, source, source.region, start, finish) }
        end
        add_own(lists, from, to) if @frame
        lists.each_value { |list| list.sort_by!(&:from) if @rows.size > 1 || @lanes.any? || @frame }
      end

      # What acts at one tick, in the order in which it acts: those that set, the winner last; those that scale; those that
      # shift.
      # @return [Array<Array(Source, Float)>] each with its amount there
      def at(tick)
        found = others_at([tick, 0].max)
        own_sources.each { |source| found << [source, amount(source, @frame.reach, tick)] }
        found.size < 2 ? found : found.sort_by.with_index { |(source, _), i| [RANKS.fetch(source.envelope.role), source.turn, i] }
      end

      # The same in numbers: what the winner sets (nil for nobody), what scales (nil for nothing), what shifts.
      # @return [Array(Float, Array<Float>, Array<Float>)]
      def amounts_at(tick)
        found = [nil, nil, nil]
        return at(tick).each_with_object(found) { |(source, amount), all| note(all, source.envelope, amount, tick) } if @frame || @live || @address.setting?

        @lanes.each { |lane| note(found, lane, lane.at(tick), tick) }
        @rows.each { |row| note_region(found, row.track.region_at(tick), row, tick) }
        found
      end

      # The runs of what acts, in order, where one clip envelope at a time sets the value and nothing else acts; nil elsewhere.
      # @return [Array<Array(Clocks::Run, Envelope)>, nil]
      def runs_alone(from, to)
        return if @live || @frame || @song.directory.driver(@address)
        return unless @lanes.empty? && @rows.size < 2 && @moves.each_value.all? { |list| list.size == 1 && list[0][1].role == "set" }

        list = []
        each_placed(from, to) do |source|
          Clocks.each_run(source.region, source.clip, source.envelope, from, to) { |run| list << [run, source.envelope] }
        end
        list
      end

      RANKS = Roles::ALL.ids.each_with_index.to_h.freeze

      # Every region in which a clip envelope acts somewhere in a stretch.
      # @yieldparam source [Source]
      def each_placed(from, to, &)
        @rows.each do |row|
          regions = to == from + 1 ? [row.track.region_at(from)].compact : row.track.regions_in(from, to)
          regions.each { |region| each_source(region, row, &) unless region.muted }
        end
      end

      # What every envelope that acts in a stretch stays between there.
      # @yieldparam role [String]
      # @yieldparam low [Float]
      # @yieldparam high [Float]
      # @yieldparam throughout [Boolean] whether it acts in all of the stretch
      def each_bound(from, to, &)
        own_sources.each { |source| each_bound_of(source, from, to, &) }
        from, to = [from, 0].max, [to, 1].max if @frame
        @lanes.each { |lane| yield lane.role, *lane_bounds(lane, from, to), true }
        each_placed(from, to) { |source| each_bound_of(source, from, to, &) }
      end

      # Everything that acts in a stretch, with where it does.
      # @yieldparam envelope [Envelope]
      # @yieldparam region [Region, nil] nil for a lane
      # @yieldparam from [Integer]
      # @yieldparam to [Integer]
      def each_share(from, to)
        @lanes.each { |lane| yield lane, nil, from, to }
        each_placed(from, to) do |source|
          region = source.region
          yield source.envelope, region, [from, region.start_tick].max, [to, region.end_tick].min
        end
      end

      # How many cycles act in a stretch, about: of LFOs, and drawn ones whose limits or depth are moved.
      # @return [Float]
      def cycles(from, to)
        count = @lanes.sum(0.0) { |lane| cycles?(lane) ? cycles_of(lane_source(lane), from, to) : 0.0 }
        return count unless @moves.each_value.any? { |list| list.any? { |_, envelope| cycles?(envelope) } }

        each_placed(from, to) do |source|
          region = source.region
          count += cycles_of(source, [from, region.start_tick].max, [to, region.end_tick].min) if cycles?(source.envelope)
        end
        count
      end

      # Whether more points lie in a stretch than so many, each pass counted, about: no more is counted than tells it.
      def crowded?(from, to, most)
        count = @lanes.sum { |lane| points_in(lane, from, to) }
        return true if count > most

        each_placed(from, to) { |source| return true if (count += points_of(source, from, to)) > most }
        false
      end

      # What a lane that trims makes of a value: factor and offset; nil for all others.
      # @param tick [Numeric] where, for a knob that is driven
      def line(envelope, tick) = @driven && envelope.trims? ? @song.trim_line(envelope, @driven.at(tick)) : @song.trim_line(envelope)

      private

      def each_bound_of(source, from, to)
        envelope, region = source.envelope, source.region
        throughout = region.start_tick <= from && region.end_tick >= to
        Bounds.positions(source, from, to).each { |start, finish| yield envelope.role, *bounds(source, start, finish, from, to), throughout }
      end

      def lane_source(lane) = Source.new("lane", lane, nil, nil, LANE)
      def own_sources = @own.map { |_, envelope| Source.new("clip", envelope, @frame.reach, @frame.clip, @frame.turn(@address)) }

      # Ids of envelopes among them whose settings are moved or held; nil for none.
      def live
        moved = @song.directory.moved_settings
        all = @lanes + @moves.each_value.flat_map { |list| list.map(&:last) }
        found = all.select { |envelope| moved.key?(envelope.id) || envelope.live? }.to_h { |envelope| [envelope.id, true] }
        found unless found.empty?
      end

      def live?(envelope) = @live&.key?(envelope.id)

      # An envelope with its settings as they are where it sounds.
      # @return [LiveMove]
      def live_move(source)
        frame = @frame if @frame && source.region.equal?(@frame.reach)
        (frame || Frame.of(@song, source.region)).move(source.envelope)
      end

      def others_at(tick)
        found = @lanes.map { |lane| [source = lane_source(lane), amount(source, nil, tick)] }
        each_placed(tick, tick + 1) do |source|
          found << [source, amount(source, source.region, tick)] if answering(source.region, tick, tick + 1).any?
        end
        found
      end

      # Where a region tells of a stretch. Of a setting, looked at from the song, the last region down the tracks that sounds its move does;
      # each region by itself has its own frame.
      # @return [Array<Array(Integer, Integer)>]
      def answering(region, from, to)
        return [[from, to]] unless @frame.nil? && @address.setting? && @song.clips[region.clip_id]&.own_setting?(@address)

        covering(region).reduce([[from, to]]) do |list, other|
          list.flat_map { |start, finish| [[start, [finish, other.start_tick].min], [[start, other.end_tick].max, finish]] }
              .select { |start, finish| finish > start }
        end
      end

      # Regions of the same clip that lie further down.
      def covering(region)
        list = @song.directory.regions_of_clip(region.clip_id)
        own = list.find { |placed| placed.region.id == region.id }
        list.select { |placed| placed.place > own.place && !placed.region.muted }.map(&:region)
      end

      def amount(source, region, tick)
        envelope = source.envelope
        if live?(envelope)
          run = region ? Clocks.enum_for(:each_run, region, source.clip, envelope, tick, tick + 1).first : Clocks::Run.new(0, tick, tick + 1)
          return live_move(source).at(run, tick)
        end

        envelope.at(region ? Clocks.position(region, source.clip, envelope, tick) : tick)
      end

      def points_in(lane, from, to)
        points = lane.points
        (points.bsearch_index { |point| point.tick >= to } || points.size) - (points.bsearch_index { |point| point.tick >= from } || points.size)
      end

      # All those of a clip count, in the share of it that is heard.
      def points_of(source, from, to)
        region, clip, envelope = source.region, source.clip, source.envelope
        heard = [to, region.end_tick].min - [from, region.start_tick].max
        envelope.points.size * heard.fdiv(envelope.clock_rules.pass_ticks(region, clip, envelope) || region.length_ticks)
      end

      def cycles?(envelope) = envelope.lfo? || (live?(envelope) && envelope.drawn_cycles.positive?)

      def cycles_of(source, from, to)
        envelope, region = source.envelope, source.region
        return envelope.drawn_cycles * (to - from) unless envelope.lfo?

        pace = (region && !envelope.source.free? && envelope.clock_rules.pace(region, source.clip, envelope)) || 1
        pace * (live?(envelope) ? live_move(source).cycles(from, to) : (to - from) / envelope.source.cycle_ticks.to_f)
      end

      # A wave between limits that stay is between them everywhere.
      def lane_bounds(lane, from, to)
        known = @lane_bounds ||= {}.compare_by_identity
        known.fetch(lane) do
          found = bounds(lane_source(lane), from, to, from, to)
          steady = lane.lfo? && !lane.trims? && !(live?(lane) && live_move(lane_source(lane)).limits_move?)
          steady ? known[lane] = found : found
        end
      end

      def bounds(source, start, finish, from, to)
        factor, offset = line(source.envelope, from) || [1.0, 0.0]
        ends = live?(source.envelope) ? live_move(source).bounds(from, to) : Bounds.of(source.envelope, start, finish)
        ends.map { |value| (value * factor) + offset }
      end

      # What the frame's own clip does.
      def own
        return NO_LIST unless @frame&.clip&.reaches?(@address, @frame.track)

        @moves.fetch(@frame.clip.id, NO_LIST)
      end

      def acting(envelopes) = envelopes.select { |envelope| envelope.acts? && !@except.include?(envelope.id) }

      # Clip id => [[clip, envelope], ...]
      def moves
        acting = @song.directory.movers(@address).select { |clip, envelope| envelope.acts? && !@except.include?(envelope.id) && near?(clip) }
        acting.group_by { |clip, _| clip.id }
      end

      # A clip's own effects, and settings of its own moves, are moved by no other clip of material, on the same track or not. In the
      # frame of a region a clip of material acts where it would in the song: on its own track.
      def near?(clip)
        return true if clip.carrier?
        return clip.own_setting?(@address) if @address.setting?

        !@address.song? && (@address.clip_id.nil? || @address.clip_id == clip.id)
      end

      # A track that holds any of it; `own` is whether it is the parameter's own.
      Row = Struct.new(:track, :place, :own)

      # The tracks that hold any of it, the own one first.
      # @return [Array<Row>]
      def rows
        own = @song.tracks_of(@address)
        own = own.first(1) if @address.setting?
        list = own.map { |track| Row.new(track, 0, true) } + elsewhere.reject { |row| own.any? { |track| track.id == row.track.id } }
        @frame ? list.reject { |row| row.track.id == @frame.track.id } : list
      end

      # Those where carriers lie, and of a setting those where its move's clip does.
      def elsewhere
        ids = @moves.each_value.filter_map { |((clip, _))| clip.id if clip.carrier? || clip.own_setting?(@address) }
        placed = ids.flat_map { |id| @song.directory.regions_of_clip(id) }
        placed.uniq { |one| one.track.id }.map { |one| Row.new(one.track, one.place, false) }.sort_by(&:place)
      end

      # Whether what a clip holds acts there as the region of the parameter's own track does.
      def own?(row, clip) = row.own || clip.own_setting?(@address)

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

        @moves.fetch(region.clip_id, NO_LIST).each do |clip, envelope|
          next unless clip.carrier? || own?(row, clip)

          note(found, envelope, envelope.at(Clocks.position(region, clip, envelope, tick)), tick)
        end
      end

      def each_source(region, row)
        @moves.fetch(region.clip_id, NO_LIST).each do |clip, envelope|
          own = own?(row, clip)
          next unless (own || clip.carrier?) && (@frame.nil? || @frame.hears?(@address, region))

          yield Source.new(own ? "clip" : "carrier", envelope, region, clip, own ? Acting.own_turn(row.place) : row.place)
        end
      end

      def add_runs(lists, source, region, from, to)
        Clocks.each_run(region, source.clip, source.envelope, from, to) { |run| add(lists, run, source) }
      end

      # The frame's own clip, and what all else comes to before tick 0.
      def add_own(lists, from, to)
        own_sources.each { |source| add_runs(lists, source, @frame.reach, from, to) }
        return unless from.negative?

        others_at(0).each do |source, amount|
          factor, offset = line(source.envelope, 0)
          lists.fetch(source.envelope.role) << Level.new(from, [to, 0].min, factor ? (amount * factor) + offset : amount, source)
        end
      end

      def add(lists, run, source)
        envelope = source.envelope
        return add_trimmed(lists, run, source) if @driven && envelope.trims?

        list, line = lists.fetch(envelope.role), @song.trim_line(envelope)
        if live?(envelope)
          live_move(source).each_arc(run, source, line) { |arc| list << arc }
        else
          envelope.each_segment(run) do |turn, segment|
            span = Span.new(turn, segment, source, line)
            list << span if span.to > span.from
          end
        end
        too_many! if list.size > MOST_PIECES
      end

      # Over a knob that is driven.
      def add_trimmed(lists, run, source)
        plain = { "set" => [], "scale" => [], "shift" => [] }
        driven, @driven = @driven, nil
        add(plain, run, Source.new("lane", source.envelope.with(fader: "follow"), nil, nil, LANE))
        @driven = driven
        parameter = @song.parameter(@address)
        walk = LiveMove::Walk.new(driven.arcs(run.from, run.to))
        plain["set"].each do |arc|
          LiveMove::Walk.each([walk], arc.from, arc.to) { |from, to| lists["set"] << Trimmed.new(arc, walk.arc, from, to, parameter) }
        end
      end

      def too_many!
        raise TooManyPieces.of("too_many_pieces", "/to_tick", "More than #{MOST_PIECES} pieces lie there; ask for a shorter stretch.")
      end
    end
  end
end
