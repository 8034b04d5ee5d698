# frozen_string_literal: true

module KindSatchel
  module Perform
    # What a hand did, written: into the clips that sound on the parameter's own track, into its lane, or into a
    # region given. Within a stroke the old move is replaced, edges level; all else stays as it was. What is written
    # makes heard equal what the hand did, through the role, over whatever else acts there; where no amount can, it is
    # limited, and told.
    #
    # A move that is made starts as what is heard without it. Where it is played for longer than one run of the clip,
    # or over a seam, the region gets a clip of its own and the move runs once over it. Where a move that runs each
    # loop was there before, later loops write over earlier ones; how much of what was played is not heard then is
    # told.
    #
    # @example
    #   stroke = Stroke.new([0, 3840], [0.2, 0.8], false)
    #   pass = HandPass.new(song, { Address.parse("rope-bass/synth/sub") => [stroke] }, into: "lane")
    #   pass.song.track("rope-bass").lanes.map { |lane| lane.target.parameter_id } #=> ["cutoff", "sub"]
    class HandPass
      # What the points keep to, as a share of the travel, unless said otherwise.
      TOLERANCE = 0.01
      WAYS = %w[clip once lane region].freeze

      # Where a part of a stroke stands in an envelope, in its own positions, and what of the song it is.
      Part = Struct.new(:envelope_id, :from, :to, :song_from, :song_to) do
        # What another leaves of it, and how many ticks of the song it takes.
        def without(other)
          return [[self], 0] if other.envelope_id != envelope_id || other.from >= to || other.to <= from

          left, right = [from, other.from].max, [to, other.to].min
          rest = [[from, left], [right, to]].select do |a, b|
            b > a
          end.map { |a, b| Part.new(envelope_id, a, b, song_at(a), song_at(b)) }
          [rest, [song_to, song_at(right)].min - song_at(left) - both(other, song_at(left), song_at(right))]
        end

        private

        def song_at(position) = song_from + ((position - from) * (song_to - song_from).fdiv(to - from)).round
        def both(other, left, right) = [[right, other.song_to].min - [left, other.song_from].max, 0].max
      end

      # @return [Song]
      attr_reader :song
      # The points of every envelope before the pass, or as it was made, by id.
      attr_reader :bases
      # Names of what overrules; whether amounts were limited; where no clip sounds: "lane" or "lost".
      attr_reader :overruled, :limited, :homeless
      # Ids of envelopes that were off and start as new ones; names of settings whose moves were switched off.
      attr_reader :replaced, :stilled
      # Names of the clips of which regions were made separate, so that a move runs once over each; how many ticks of
      # what was played later loops wrote over, by address; where the role can do nothing, [address, role, first tick,
      # last tick].
      attr_reader :apart, :lost_ticks, :idle

      # @param song [Song] in which none of the parameters is held by hand
      # @param strokes [Hash{Address=>Array<Stroke>}] in order of time
      # @param into [String] one of {WAYS}
      # @param role [String, nil] nil for what is at work there: a move that shifts and none that sets is written as
      #   such, all else sets
      # @param tolerance [Float]
      # @param region_id [String, nil] the region of a carrier clip, for "region"
      def initialize(song, strokes, into:, role: nil, tolerance: TOLERANCE, region_id: nil)
        @song = song
        @into, @given, @tolerance, @region_id = into, role, tolerance, region_id
        @bases, @parts, @played = {}, Hash.new { |all, address| all[address] = [] }, Hash.new do |all, address|
          all[address] = []
        end
        @overruled, @limited, @homeless, @replaced, @stilled = [], false, [], [], []
        @apart, @lost_ticks, @idle = [], {}, []
        strokes.each { |address, list| list.each { |stroke| write(address, stroke) } }
      end

      # @return [Hash{Address=>Array<String>}] ids of the envelopes that were written into
      def envelopes = @played.transform_values { |list| list.map(&:first).uniq }

      # How far what is heard lies from what the hand did, wherever any of it was written: at its samples and between
      # them, of several laps on one stretch the last. An upper bound; see {Strayed} for what counts as time.
      # @param earlier [Array<Stroke>] what was played before in the same pass
      # @return [Float] as a share of the travel
      def difference(address, earlier = [])
        resolver = Heard::Resolver.new(@song, address)
        last(earlier + @played[address].map(&:last)).map do |stroke|
          Strayed.of(resolver.pieces(stroke.from, stroke.to), stroke)
        end.max || 0.0
      end

      private

      # Of strokes over each other, what is left of the earlier ones.
      def last(strokes)
        strokes.reduce([]) do |kept, stroke|
          kept.flat_map { |one| [one.cut(one.from, stroke.from), one.cut(stroke.to, one.to)].compact } << stroke
        end
      end

      def write(address, stroke)
        return write_lane(address, stroke) if @into == "lane"
        return write_region(@song.directory.region(@region_id), address, stroke) if @into == "region"

        track = @song.tracks_of(address).first
        at = stroke.from
        sounding(track, address, stroke).each do |region|
          without_clip(address, stroke.cut(at, region.start_tick))
          write_region(@song.directory.region(region.id), address, stroke)
          at = region.end_tick
        end
        without_clip(address, stroke.cut(at, stroke.to))
      end

      def sounding(track, address, stroke)
        return [] unless track

        track.regions_in(stroke.from, stroke.to).reject do |region|
          region.muted || !@song.clip(region.clip_id).reaches?(address, track)
        end
      end

      # Where no clip sounds the lane takes it; effects of a clip have none.
      def without_clip(address, stroke)
        return unless stroke

        @homeless |= [address.clip_id ? "lost" : "lane"]
        write_lane(address, stroke) unless address.clip_id
      end

      def write_lane(address, stroke)
        no_lane!(address)
        @role = role_among(@song.lanes_of(address))
        made = Transfer::Lanes.lane(@song, address, @role).nil?
        @song = Transfer::Lanes.with_lane(@song, address, @role)
        lane = ready(Transfer::Lanes.lane(@song, address, @role), made)
        run = Clocks::Run.new(0, stroke.from, stroke.to)
        put(address, lane.id, run, amounts(address, lane, stroke, Heard::Acting::LANE), stroke)
      end

      def no_lane!(address)
        return unless address.clip_id

        raise InvalidInput.of("no_lane", "/into",
                              "The effects of #{@song.owner_name(address)} are the clip's own: envelopes in the clip " \
                              "move them, and " \
                              "carriers, but no lane.")
      end

      def write_region(placed, address, stroke)
        stroke = stroke.cut(placed.region.start_tick, placed.region.end_tick) or return
        placed, once = once_over(placed, address, stroke)
        region, clip = placed.region, @song.clip(placed.region.clip_id)
        made = clip.envelope_for(address, @role).nil?
        envelope = made ? embedded(clip, region, address, stroke, once) : clip.envelope_for(address, @role)
        envelope = ready(envelope, made)
        envelope = unrolled(region, envelope) if once
        own = placed.track.id == @song.tracks_of(address).first&.id
        list = amounts(address, envelope, stroke, own ? Heard::Acting.own_turn(placed.place) : placed.place)
        Clocks.each_run(region, @song.clip(clip.id), envelope, stroke.from, stroke.to) do |run|
          put(address, envelope.id, run, list, stroke)
        end
      end

      # The region, with a clip of its own where a move is to run once over it.
      # @return [Array(Directory::Placed, Boolean)]
      def once_over(placed, address, stroke)
        region, clip = placed.region, @song.clip(placed.region.clip_id)
        @role = role_among(clip.envelopes.select { |envelope| envelope.target == address })
        envelope = clip.envelope_for(address, @role)
        once = @into == "once" ? envelope&.clock != "once" : envelope.nil? && seam?(region, clip, stroke)
        return [placed, false] unless once

        return [placed, true] if @song.directory.regions_of_clip(clip.id).size < 2
        # Of a copy they would have other addresses.
        return [placed, false] if address.setting? || address.clip_id

        @apart |= [clip.name]
        copy, song = Transfer::Clips.own_copy(@song, clip)
        track = placed.track
        regions = track.regions.map { |one| one.id == region.id ? one.onto(clip, copy) : one }
        @song = song.with_clip(copy).with_track(song.track(track.id).with(regions:))
        [@song.directory.region(region.id), true]
      end

      # Whether the material begins again under a stroke.
      def seam?(region, clip, stroke)
        Clocks.enum_for(:each_material_pass, region, clip, stroke.from, stroke.to).count > 1
      end

      # A move as it is heard over all of a region, in one run.
      def unrolled(region, envelope)
        return envelope if envelope.clock == "once"

        clip = @song.clip(region.clip_id)
        points = Conversion::Written.shifted(Conversion::Written.in_region(@song, region, clip, envelope),
                                             region.offset_ticks - region.start_tick)
        @bases[envelope.id] = { **@bases[envelope.id], "clock" => [envelope.clock, envelope.own_length_ticks] }
        @song = Transfer::Lanes.change(@song, envelope.id) do |one|
          one.with(clock: "once", own_length_ticks: nil, points:)
        end
        @song.directory.envelope(envelope.id).envelope
      end

      def role_among(envelopes)
        roles = envelopes.select(&:on).map(&:role)
        @given || (roles.include?("shift") && !roles.include?("set") ? "shift" : "set")
      end

      # A new envelope in a clip; one that sets goes, outside of what is written, as it is set there without it.
      # @param once [Boolean] whether it runs once over the region
      def embedded(clip, region, address, stroke, once)
        envelope = Transfer::Lanes.resting(@song, address, @role)
        envelope = envelope.with(clock: "once") if once
        envelope = envelope.with(points: course(address, region, clip, envelope, stroke)) if @role == "set"
        @song = @song.with(next_id: @song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, envelope]))
        envelope
      end

      def course(address, region, clip, envelope, stroke)
        run = Clocks.enum_for(:each_run, region, clip, envelope, stroke.from, stroke.to).first
        from, to = [run.zero, 0].max, envelope.clock == "once" ? region.end_tick : run.zero + clip.length_ticks
        Conversion::Written.shifted(Course.points(Heard::Resolver.new(@song, address), from, [to, from + 1].max),
                                    -run.zero)
      end

      # On, with full limits. One that was off is not heard, so it does not come back: it starts as a new one.
      def ready(envelope, made)
        now = if envelope.on
                envelope
              else
                envelope.bare.with(on: true,
                                   points: Transfer::Lanes.resting(
                                     @song, envelope.target, @role
                                   ).points)
              end
        now = plain(now)
        @bases[now.id] ||= { "made" => made, "points" => now.points }
        @replaced |= [now.id] unless envelope.on
        @song = Transfer::Lanes.change(@song, now.id) { now } unless now.equal?(envelope)
        now
      end

      # As points with full limits. What moves its settings would make something else of what is written: it is taken
      # in.
      def plain(envelope)
        home = @song.directory.envelopes[envelope.id]
        plain = home && envelope.equal?(home.envelope) ? Conversion::Drawn.taken_in(@song, home) : envelope
        still(envelope)
        plain.lfo? ? plain.drawn(Clocks.extent(@song, home)) : plain.unlimited
      end

      def still(envelope)
        movers = @song.directory.envelopes.each_value.map(&:envelope).select do |one|
          one.on && one.target.setting? && one.target.device_id == envelope.id
        end
        return if movers.empty?

        @stilled |= movers.map { |one| "#{one.target.parameter_id} of #{@song.parameter_name(envelope.target)}" }
        movers.each { |one| @song = Transfer::Lanes.change(@song, one.id) { one.with(on: false) } }
      end

      def amounts(address, envelope, stroke, turn)
        resolver = Heard::Resolver.new(@song, address, except: [envelope.id])
        pieces = resolver.pieces(stroke.from, stroke.to)
        note_overruled(pieces, turn) if @role == "set"
        line = @song.trim_line(envelope) || [1.0, 0.0]
        return Amounts.plain(stroke, @tolerance) if @role == "set" && pieces.all?(&:alone?) && line == [1.0, 0.0]

        list, found = Amounts.through(pieces, stroke, @role, line, @tolerance)
        @limited ||= found.limited
        @idle << [address, @role, *found.idle] if found.idle
        list
      end

      # What sets later there.
      def note_overruled(pieces, turn)
        later = pieces.filter_map(&:set).map(&:source).uniq.select { |source| source.clip && source.turn > turn }
        @overruled |= later.map { |source| source.clip.name }
      end

      # The part of a stroke that sounds in one run of the envelope.
      def put(address, envelope_id, run, amounts, stroke)
        from, to = [run.from, stroke.from].max, [run.to, stroke.to].min
        place = ->(tick) { run.position(tick).round }
        return unless place.call(to) > place.call(from)

        part = amounts.cut(from, to)
        points = part.thinned.map { |tick, value, shape| Point.new(tick: place.call(tick), value:, shape:) }
        @song = Transfer::Lanes.change(@song, envelope_id) do |one|
          one.with(points: Splice.replace(one.points, points.first.tick, points.last.tick, points))
        end
        note(address, Part.new(envelope_id, place.call(from), place.call(to), from, to), stroke.cut(from, to))
      end

      # What is written over at another place of the song is not heard where it was played.
      def note(address, part, stroke)
        @parts[address] = @parts[address].flat_map do |one|
          rest, lost = one.without(part)
          @lost_ticks[address] = @lost_ticks.fetch(address, 0) + lost if lost.positive?
          rest
        end
        @parts[address] << part
        @played[address] << [part.envelope_id, stroke]
      end
    end
  end
end
