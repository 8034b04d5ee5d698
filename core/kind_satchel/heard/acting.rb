# frozen_string_literal: true

module KindSatchel
  module Heard
    # Raised for a read of more than {Acting::MOST_PIECES} pieces.
    class TooManyPieces < InvalidInput; end

    # Everything that acts on one parameter of a song.
    #
    # One value is set: by the lane, overruled by the region on the parameter's own track, overruled by carrier clips
    # elsewhere, further down the tracks later. Then everything scales it, then everything shifts it. A clip of notes or audio
    # moves its own track, and effects of its own, only.
    class Acting
      # The most pieces one read answers.
      MOST_PIECES = 1_000_000
      LANE = -2
      OWN = -1
      NO_LIST = [].freeze

      # @param song [Song]
      # @param address [Address]
      # @param except [Array<String>] ids of envelopes that are left out
      # @param waiting [Boolean] what would act if no hand held the parameter
      def initialize(song, address, except: [], waiting: false)
        @song = song
        @address = address
        @except = except
        @held = !waiting && !song.held_value(address).nil?
        @lanes = @held ? NO_LIST : acting(song.lanes_of(address))
        @moves = @held ? {} : moves
        @rows = @moves.empty? ? NO_LIST : rows
      end

      def held? = @held

      # What acts somewhere in a stretch, by role.
      # @return [Hash{String=>Array<Span>}] each list sorted by `from`, cut to the stretch
      # @raise [InvalidInput] for more than {MOST_PIECES}
      def spans(from, to)
        lists = { "set" => [], "scale" => [], "shift" => [] }
        @lanes.each { |lane| add(lists, Clocks::Run.new(0, from, to), Source.new("lane", lane, nil, nil, LANE)) }
        each_placed(from, to) do |source|
          Clocks.each_run(source.region, source.clip, source.envelope, from, to) { |run| add(lists, run, source) }
        end
        lists.each_value { |list| list.sort_by!(&:from) if @rows.size > 1 || @lanes.any? }
      end

      # What acts at one tick, in the order in which it acts: those that set, the winner last; those that scale; those that
      # shift.
      # @return [Array<Array(Source, Float)>] each with its amount there
      def at(tick)
        found = @lanes.map { |lane| [Source.new("lane", lane, nil, nil, LANE), lane.at(tick)] }
        each_placed(tick, tick + 1) do |source|
          found << [source, source.envelope.at(Clocks.position(source.region, source.clip, source.envelope, tick))]
        end
        found.size < 2 ? found : found.sort_by.with_index { |(source, _), i| [RANKS.fetch(source.envelope.role), source.turn, i] }
      end

      # The same in numbers: what the winner sets (nil for nobody), what scales (nil for nothing), what shifts.
      # @return [Array(Float, Array<Float>, Array<Float>)]
      def amounts_at(tick)
        found = [nil, nil, nil]
        @lanes.each { |lane| note(found, lane, lane.at(tick)) }
        @rows.each { |track, turn| note_region(found, track.region_at(tick), turn, tick) }
        found
      end

      # The runs of what acts, in order, where one clip envelope at a time sets the value and nothing else acts; nil elsewhere.
      # @return [Array<Array(Clocks::Run, Envelope)>, nil]
      def runs_alone(from, to)
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
        @rows.each do |track, turn|
          regions = to == from + 1 ? [track.region_at(from)].compact : track.regions_in(from, to)
          regions.each { |region| each_source(region, turn, &) unless region.muted }
        end
      end

      # What every envelope that acts in a stretch stays between there.
      # @yieldparam role [String]
      # @yieldparam low [Float]
      # @yieldparam high [Float]
      # @yieldparam throughout [Boolean] whether it acts in all of the stretch
      def each_bound(from, to)
        @lanes.each { |lane| yield lane.role, *bounds(lane, from, to), true }
        each_placed(from, to) do |source|
          envelope, region = source.envelope, source.region
          throughout = region.start_tick <= from && region.end_tick >= to
          Bounds.positions(source, from, to).each { |start, finish| yield envelope.role, *bounds(envelope, start, finish), throughout }
        end
      end

      # What a lane that trims makes of a value: factor and offset; nil for all others.
      def line(envelope) = @song.trim_line(envelope)

      private

      def bounds(envelope, from, to)
        factor, offset = line(envelope) || [1.0, 0.0]
        Bounds.of(envelope, from, to).map { |value| (value * factor) + offset }
      end

      def acting(envelopes) = envelopes.select { |envelope| envelope.acts? && !@except.include?(envelope.id) }

      # Clip id => [[clip, envelope], ...]
      def moves
        acting = @song.directory.movers(@address).select { |clip, envelope| envelope.acts? && !@except.include?(envelope.id) && near?(clip) }
        acting.group_by { |clip, _| clip.id }
      end

      # A clip's own effects are moved by no other clip of material, on the same track or not.
      def near?(clip) = clip.carrier? || @address.clip_id.nil? || @address.clip_id == clip.id

      # The tracks that hold any of it, each with the turn of its regions.
      def rows
        directory = @song.directory
        own = @song.tracks_of(@address)
        carriers = @moves.each_value.filter_map { |((clip, _))| clip.id if clip.carrier? }
        others = carriers.flat_map { |id| directory.regions_of_clip(id).map { |placed| [placed.track, placed.place] } }
        own.map { |track| [track, OWN] } + others.uniq.reject { |other| own.include?(other.first) }.sort_by(&:last)
      end

      def note(found, envelope, amount)
        case envelope.role
        when "set"
          factor, offset = line(envelope)
          found[0] = factor ? (amount * factor) + offset : amount
        when "scale" then (found[1] ||= []) << amount
        else (found[2] ||= []) << amount
        end
      end

      def note_region(found, region, turn, tick)
        return if region.nil? || region.muted

        @moves.fetch(region.clip_id, NO_LIST).each do |clip, envelope|
          next unless turn == OWN || clip.carrier?

          note(found, envelope, envelope.at(Clocks.position(region, clip, envelope, tick)))
        end
      end

      def each_source(region, turn)
        @moves.fetch(region.clip_id, NO_LIST).each do |clip, envelope|
          yield Source.new(turn == OWN ? "clip" : "carrier", envelope, region, clip, turn) if turn == OWN || clip.carrier?
        end
      end

      def add(lists, run, source)
        envelope = source.envelope
        list, line = lists.fetch(envelope.role), line(envelope)
        envelope.each_segment(run) do |turn, segment|
          span = Span.new(turn, segment, source, line)
          list << span if span.to > span.from
        end
        too_many! if list.size > MOST_PIECES
      end

      def too_many!
        raise TooManyPieces.of("too_many_pieces", "/to_tick", "More than #{MOST_PIECES} pieces lie there; ask for a shorter stretch.")
      end
    end
  end
end
