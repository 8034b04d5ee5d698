# frozen_string_literal: true

module KindSatchel
  module Perform
    # What a hand did, written: into the clips that sound on the parameter's own track, into its lane, or into a region given. Within
    # a stroke the old move is replaced, edges level; all else stays as it was. What is written makes heard equal what the hand did,
    # through the role, over whatever else acts there; where no amount can, it is limited, and told.
    #
    # Where the material repeats under one stroke, later repeats win. A move that is made starts as what is heard without it.
    #
    # @example
    #   pass = HandPass.new(song, { address => [stroke] }, into: "clip")
    #   pass.song   # with the points in the clip that sounds there
    class HandPass
      # What the points keep to, as a share of the travel, unless said otherwise.
      TOLERANCE = 0.01
      WAYS = %w[clip lane region].freeze
      # Points lie on whole ticks of the envelope; where its clock is stretched a jump may so come by this much early or late.
      NEAR = [-2, -1, 1, 2].freeze
      # What is heard is looked at in so many places, where it is not known from the points.
      MOST_LOOKS = 1500

      # Where a part of a stroke stands in an envelope, its own positions; how far its points lie from it, where that alone is heard.
      Part = Struct.new(:envelope_id, :from, :to, :stroke, :strayed)

      # @return [Song]
      attr_reader :song
      # The points of every envelope before the pass, or as it was made, by id.
      attr_reader :bases
      # How many points were written; names of what overrules; whether amounts were limited; where no clip sounds: "lane" or "lost".
      attr_reader :written, :overruled, :limited, :homeless
      # Ids of envelopes that were off and start as new ones; names of settings whose moves were switched off.
      attr_reader :replaced, :stilled

      # @param song [Song] in which none of the parameters is held by hand
      # @param strokes [Hash{Address=>Array<Stroke>}] in order of time
      # @param into [String] one of {WAYS}
      # @param role [String, nil] nil for what is at work there: a move that shifts and none that sets is written as such, all else sets
      # @param tolerance [Float]
      # @param region_id [String, nil] the region of a carrier clip, for "region"
      def initialize(song, strokes, into:, role: nil, tolerance: TOLERANCE, region_id: nil)
        @song = song
        @into, @given, @tolerance, @region_id = into, role, tolerance, region_id
        @bases, @parts = {}, Hash.new { |all, address| all[address] = [] }
        @written, @overruled, @limited, @homeless, @replaced, @stilled = 0, [], false, [], [], []
        strokes.each { |address, list| list.each { |stroke| write(address, stroke) } }
      end

      # @return [Hash{Address=>Array<String>}] ids of the envelopes that were written into
      def envelopes = @parts.transform_values { |parts| parts.map(&:envelope_id).uniq }

      # How far what is heard lies from what the hand did, where nothing later was written over it. A jump may come a tick or two
      # early or late.
      # @return [Float] as a share of the travel
      def difference(address)
        plain, others = @parts[address].partition(&:strayed)
        [*plain.map(&:strayed), heard_apart(address, others)].max
      end

      private

      def heard_apart(address, parts)
        resolver = Heard::Resolver.new(@song, address)
        places = parts.flat_map { |part| part.stroke.looks }.sort_by!(&:first)
        places = places.each_slice((places.size / MOST_LOOKS) + 1).map(&:first)
        apart = apart(resolver, places)
        far = places.each_index.select { |i| apart[i] > @tolerance }.map { |i| places[i] }
        beside = NEAR.map { |ticks| apart(resolver, far.map { |tick, wanted| [[tick + ticks, 0].max, wanted] }) }
        [*apart.select { |share| share <= @tolerance }, *apart.select { |share| share > @tolerance }.zip(*beside).map(&:min)].max || 0.0
      end

      def apart(resolver, places)
        heard = resolver.at_each(places.map(&:first))
        Array.new(places.size) { |i| (heard[i] - places[i][1]).abs }
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

        track.regions_in(stroke.from, stroke.to).reject { |region| region.muted || !@song.clip(region.clip_id).reaches?(address, track) }
      end

      # Where no clip sounds the lane takes it; effects of a clip have none.
      def without_clip(address, stroke)
        return unless stroke

        @homeless |= [address.clip_id ? "lost" : "lane"]
        write_lane(address, stroke) unless address.clip_id
      end

      def write_lane(address, stroke)
        @role = role_among(@song.lanes_of(address))
        made = Transfer::Lanes.lane(@song, address, @role).nil?
        @song = Transfer::Lanes.with_lane(@song, address, @role)
        lane = ready(Transfer::Lanes.lane(@song, address, @role), made)
        run = Clocks::Run.new(0, stroke.from, stroke.to)
        put(lane.id, run, amounts(address, lane, stroke, Heard::Acting::LANE), stroke)
      end

      def write_region(placed, address, stroke)
        region, clip = placed.region, @song.clip(placed.region.clip_id)
        stroke = stroke.cut(region.start_tick, region.end_tick) or return
        @role = role_among(clip.envelopes.select { |envelope| envelope.target == address })
        made = clip.envelope_for(address, @role).nil?
        envelope = made ? embedded(clip, region, address, stroke) : clip.envelope_for(address, @role)
        envelope = ready(envelope, made)
        own = placed.track.id == @song.tracks_of(address).first&.id
        list = amounts(address, envelope, stroke, own ? Heard::Acting.own_turn(placed.place) : placed.place)
        Clocks.each_run(region, @song.clip(clip.id), envelope, stroke.from, stroke.to) { |run| put(envelope.id, run, list, stroke) }
      end

      def role_among(envelopes)
        roles = envelopes.select(&:on).map(&:role)
        @given || (roles.include?("shift") && !roles.include?("set") ? "shift" : "set")
      end

      # A new envelope in a clip; one that sets goes, outside of what is written, as it is set there without it.
      def embedded(clip, region, address, stroke)
        envelope = Transfer::Lanes.resting(@song, address, @role)
        envelope = envelope.with(points: course(address, region, clip, envelope, stroke)) if @role == "set"
        @song = @song.with(next_id: @song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, envelope]))
        envelope
      end

      def course(address, region, clip, envelope, stroke)
        run = Clocks.enum_for(:each_run, region, clip, envelope, stroke.from, stroke.to).first
        from, to = [run.zero, 0].max, run.zero + clip.length_ticks
        Conversion::Written.shifted(Course.points(Heard::Resolver.new(@song, address), from, [to, from + 1].max), -run.zero)
      end

      # On, with full limits. One that was off is not heard, so it does not come back: it starts as a new one.
      def ready(envelope, made)
        now = envelope.on ? envelope : envelope.bare.with(on: true, points: Transfer::Lanes.resting(@song, envelope.target, @role).points)
        now = plain(now)
        @bases[now.id] ||= { "made" => made, "points" => now.points }
        @replaced |= [now.id] unless envelope.on
        @song = Transfer::Lanes.change(@song, now.id) { now } unless now.equal?(envelope)
        now
      end

      # As points with full limits. What moves its settings would make something else of what is written: it is taken in.
      def plain(envelope)
        home = @song.directory.envelopes[envelope.id]
        plain = home && envelope.equal?(home.envelope) ? Conversion::Drawn.taken_in(@song, home) : envelope
        still(envelope)
        plain.lfo? ? plain.drawn(Clocks.extent(@song, home)) : plain.unlimited
      end

      def still(envelope)
        movers = @song.directory.envelopes.each_value.map(&:envelope).select { |one| one.on && one.target.setting? && one.target.device_id == envelope.id }
        return if movers.empty?

        @stilled |= movers.map { |one| "#{one.target.parameter_id} of #{@song.parameter_name(envelope.target)}" }
        movers.each { |one| @song = Transfer::Lanes.change(@song, one.id) { one.with(on: false) } }
      end

      def amounts(address, envelope, stroke, turn)
        resolver = Heard::Resolver.new(@song, address, except: [envelope.id])
        pieces = resolver.pieces(stroke.from, stroke.to)
        over = @role == "set" && overruled?(pieces, turn)
        line = @song.trim_line(envelope) || [1.0, 0.0]
        plain = @role == "set" && pieces.all?(&:alone?) && line == [1.0, 0.0]
        list, limited = plain ? [Amounts.plain(stroke, @tolerance), false] : Amounts.through(pieces, stroke, resolver.scale, @role, line, @tolerance)
        @limited ||= limited
        # Then what is heard strays just as the amounts do.
        @true = !over && !limited && (plain || @role == "set" || !resolver.scale.gain?)
        list
      end

      # Whether something that sets later sets there.
      def overruled?(pieces, turn)
        later = pieces.filter_map(&:set).map(&:source).uniq.select { |source| source.clip && source.turn > turn }
        @overruled |= later.map { |source| source.clip.name }
        later.any?
      end

      # The part of a stroke that sounds in one run of the envelope.
      def put(envelope_id, run, amounts, stroke)
        from, to = [run.from, stroke.from].max, [run.to, stroke.to].min
        place = ->(tick) { run.position(tick).round }
        return unless place.call(to) > place.call(from)

        part = amounts.cut(from, to)
        points = part.thinned.map { |tick, value, shape| Point.new(tick: place.call(tick), value:, shape:) }
        @song = Transfer::Lanes.change(@song, envelope_id) { |one| one.with(points: Splice.replace(one.points, points.first.tick, points.last.tick, points)) }
        strayed = @true && run.pace.nil? ? part.strayed * @tolerance : nil
        note(Part.new(envelope_id, place.call(from), place.call(to), stroke.cut(from, to), strayed), points.size)
      end

      # What is written over no longer counts.
      def note(part, count)
        parts = @parts[@song.directory.envelope(part.envelope_id).envelope.target]
        parts.reject! { |one| one.envelope_id == part.envelope_id && one.from < part.to && one.to > part.from }
        parts << part
        @written += count
      end
    end
  end
end
