# frozen_string_literal: true

module KindSatchel
  module Heard
    # Everything that acts on one parameter of a song, in a {Frame}: who and where, not how much.
    #
    # One value is set: by the lane, overruled by the region on the parameter's own track and by a move's own region,
    # overruled by carrier clips elsewhere, further down the tracks later. Of a setting of a clip's move the own track
    # is the first of those its clip lies on. Then everything scales it, then everything shifts it. A clip of notes or
    # audio moves its own track, effects of its own and settings of its own moves, only.
    class Acting
      LANE = -2
      OWN = -1
      # When what lies on a parameter's own track, or a move's own region, comes: after the lane, before carriers
      # elsewhere.
      # @param place [Integer] of the track
      # @return [Float] below 0
      def self.own_turn(place) = OWN + place.fdiv(Value::LARGEST)

      NO_LIST = [].freeze

      attr_reader :song, :address, :frame, :lanes, :rows

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
        @rows = @moves.empty? ? NO_LIST : tracks_with_moves
        @own = own
        @moving = moving
      end

      # Whether a hand holds the parameter.
      def held? = @held

      # Whether something acts whose settings are moved or held, or that goes by the clock.
      def live_moves? = !@moving.nil?

      # Whether that holds for one envelope.
      def live?(envelope) = @moving&.key?(envelope.id)

      # Whether nothing ever acts on it, no hand either.
      def idle? = !@held && @lanes.empty? && @moves.empty?

      # A lane as a source.
      def lane_source(lane) = Source.new("lane", lane, nil, nil, LANE)

      # What the frame's own clip does.
      # @return [Array<Source>]
      def own_sources
        @own.map { |_, envelope| Source.new("clip", envelope, @frame.reach, @frame.clip, @frame.turn(@address)) }
      end

      # Every region in which a clip envelope acts somewhere in a stretch.
      # @yieldparam source [Source]
      def each_placed(from, to, &)
        @rows.each do |row|
          regions = to == from + 1 ? [row.track.region_at(from)].compact : row.track.regions_in(from, to)
          regions.each { |region| each_source(region, row, &) unless region.muted }
        end
      end

      # The clips and envelopes that act where a region lies, without more about them.
      # @yieldparam clip [Clip]
      # @yieldparam envelope [Envelope]
      def each_in(region, row)
        @moves.fetch(region.clip_id, NO_LIST).each do |clip, envelope|
          yield clip, envelope if clip.carrier? || own?(row, clip)
        end
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

      # The runs of what acts, in order, where one clip envelope at a time sets the value and nothing else acts; nil
      # elsewhere.
      # @return [Array<Array(Clocks::Run, Envelope)>, nil]
      def runs_alone(from, to)
        return if live_moves? || @frame || @song.directory.driver(@address)
        return unless @lanes.empty? && @rows.size < 2 && @moves.each_value.all? do |list|
          list.size == 1 && list[0][1].role == "set"
        end

        list = []
        each_placed(from, to) do |source|
          Clocks.each_run(source.region, source.clip, source.envelope, from, to) do |run|
            list << [run, source.envelope]
          end
        end
        list
      end

      # Every clip envelope among them, wherever it sounds.
      # @return [Array<Envelope>]
      def clip_envelopes = @moves.each_value.flat_map { |list| list.map(&:last) }

      # Where a region tells of a stretch. Of a setting, looked at from the song, the last region down the tracks that
      # sounds its move does; each region by itself has its own frame.
      # @return [Array<Array(Integer, Integer)>]
      def heard_in(region, from, to)
        unless @frame.nil? && @address.setting? && @song.clips[region.clip_id]&.own_setting?(@address)
          return [[from,
                   to]]
        end

        covering(region).reduce([[from, to]]) do |list, other|
          list.flat_map do |start, finish|
            [[start, [finish, other.start_tick].min], [[start, other.end_tick].max, finish]]
          end
              .select { |start, finish| finish > start }
        end
      end

      # Whether more points lie in a stretch than so many, each pass counted, about: no more is counted than tells it.
      def crowded?(from, to, most)
        count = @lanes.sum { |lane| points_in(lane, from, to) }
        return true if count > most

        each_placed(from, to) { |source| return true if (count += points_of(source, from, to)) > most }
        false
      end

      private

      # Regions of the same clip that lie further down.
      def covering(region)
        list = @song.directory.regions_of_clip(region.clip_id)
        own = list.find { |placed| placed.region.id == region.id }
        list.select { |placed| placed.place > own.place && !placed.region.muted }.map(&:region)
      end

      def points_in(lane, from, to)
        points = lane.points
        (points.bsearch_index { |point| point.tick >= to } || points.size) - (points.bsearch_index do |point|
          point.tick >= from
        end || points.size)
      end

      # All those of a clip count, in the share of it that is heard.
      def points_of(source, from, to)
        region, clip, envelope = source.region, source.clip, source.envelope
        heard = [to, region.end_tick].min - [from, region.start_tick].max
        pass = envelope.clock_rules.pass_ticks(region, clip, envelope) || region.length_ticks
        envelope.points.size * heard.fdiv(pass)
      end

      # Ids of envelopes among them whose settings are moved or held, or that go by the clock; nil for none.
      def moving
        moved = @song.directory.moved_settings
        found = (@lanes + clip_envelopes).select do |envelope|
          moved.key?(envelope.id) || envelope.live?
        end.to_h { |envelope| [envelope.id, true] }
        found unless found.empty?
      end

      def own
        return NO_LIST unless @frame&.clip&.reaches?(@address, @frame.track)

        @moves.fetch(@frame.clip.id, NO_LIST)
      end

      def acting(envelopes) = envelopes.select { |envelope| acts?(envelope) }
      def acts?(envelope) = envelope.acts? && !@except.include?(envelope.id)

      # Clip id => [[clip, envelope], ...]
      def moves
        @song.directory.movers(@address).select do |clip, envelope|
          acts?(envelope) && reaches?(clip)
        end.group_by { |clip, _| clip.id }
      end

      # A clip's own effects, and settings of its own moves, are moved by no other clip of material, on the same track
      # or not. In the frame of a region a clip of material acts where it would in the song: on its own track.
      def reaches?(clip)
        return true if clip.carrier?
        return clip.own_setting?(@address) if @address.setting?

        !@address.song? && (@address.clip_id.nil? || @address.clip_id == clip.id)
      end

      # A track that holds any of it; `own` is whether it is the parameter's own.
      Row = Struct.new(:track, :place, :own)

      # The tracks that hold any of it, the own one first.
      # @return [Array<Row>]
      def tracks_with_moves
        own = @song.tracks_of(@address)
        own = own.first(1) if @address.setting?
        list = own.map { |track| Row.new(track, 0, true) } + elsewhere.reject do |row|
          own.any? { |track| track.id == row.track.id }
        end
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

      def each_source(region, row)
        return unless @frame.nil? || @frame.hears?(@address, region)

        each_in(region, row) do |clip, envelope|
          own = own?(row, clip)
          yield Source.new(own ? "clip" : "carrier", envelope, region, clip,
                           own ? Acting.own_turn(row.place) : row.place)
        end
      end
    end
  end
end
