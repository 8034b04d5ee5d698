# frozen_string_literal: true

module KindSatchel
  module Perform
    # What a hand did, written: into the clips that sound on the parameter's own track, into its lane, or into a
    # region given. Within a stroke the old move is replaced, edges level; all else stays as it was. What is written
    # makes heard equal what the hand did, through the role, over whatever else acts there; where no amount can, it is
    # limited, and told.
    #
    # A move that is made starts as what is heard without it. Where it is played for longer than one run of the clip,
    # or over a seam, the region gets a clip of its own and the move runs once over it ({RegionOnce}). Where a move
    # that runs each loop was there before, later loops write over earlier ones; how much of what was played is not
    # heard then is told.
    #
    # @example
    #   stroke = Stroke.new([0, 3840], [0.2, 0.8], false)
    #   pass = HandPass.write(song, { Address.parse("rope-bass/synth/sub") => [stroke] }, into: "lane")
    #   pass.song.track("rope-bass").lanes.map { |lane| lane.target.parameter_id } #=> ["cutoff", "sub"]
    class HandPass
      # What the points keep to, as a share of the travel, unless said otherwise.
      TOLERANCE = 0.01
      WAYS = %w[clip once lane region].freeze

      # @param song [Song] in which none of the parameters is held by hand
      # @param strokes [Hash{Address=>Array<Stroke>}] in order of time
      # @param into [String] one of {WAYS}
      # @param role [String, nil] nil for what is at work there: a move that shifts and none that sets is written as
      #   such, all else sets
      # @param tolerance [Float]
      # @param region_id [String, nil] the region of a carrier clip, for "region"
      # @return [WrittenPass]
      # @raise [InvalidInput] "no_lane" where an effect of a clip would be written into a lane
      def self.write(song, strokes, into:, role: nil, tolerance: TOLERANCE, region_id: nil)
        writer = new(into, role, tolerance, region_id)
        played = strokes.flat_map { |address, list| list.map { |stroke| [address, stroke] } }
        played.reduce(WrittenPass.none(song)) { |pass, (address, stroke)| writer.with_stroke(pass, address, stroke) }
      end

      # @param into [String] one of {WAYS}
      def initialize(into, role, tolerance, region_id)
        @into, @role, @tolerance, @region_id = into, role, tolerance, region_id
        freeze
      end

      # @return [WrittenPass] with one more stroke written
      def with_stroke(pass, address, stroke)
        case @into
        when "lane" then in_lane(pass, address, stroke)
        when "region" then in_region(pass, @region_id, address, stroke)
        else in_clips(pass, address, stroke)
        end
      end

      private

      def in_clips(pass, address, stroke)
        at = stroke.from
        sounding(pass.song, address, stroke).each do |region|
          pass = without_clip(pass, address, stroke.cut(at, region.start_tick))
          pass = in_region(pass, region.id, address, stroke)
          at = region.end_tick
        end
        without_clip(pass, address, stroke.cut(at, stroke.to))
      end

      def sounding(song, address, stroke)
        track = song.tracks_of(address).first or return []
        track.regions_in(stroke.from, stroke.to).reject do |region|
          region.muted || !song.clip(region.clip_id).reaches?(address, track)
        end
      end

      # Where no clip sounds the lane takes it; effects of a clip have none.
      def without_clip(pass, address, stroke)
        return pass unless stroke
        return pass.noting(homeless: ["lost"]) if address.clip_id

        in_lane(pass.noting(homeless: ["lane"]), address, stroke)
      end

      def in_lane(pass, address, stroke)
        no_lane!(pass.song, address) if address.clip_id
        role = role_among(pass.song.lanes_of(address))
        made = Transfer::Lanes.lane(pass.song, address, role).nil?
        pass = pass.with(song: Transfer::Lanes.with_lane(pass.song, address, role))
        pass, lane = PassEnvelope.ready(pass, Transfer::Lanes.lane(pass.song, address, role), made)
        pass, amounts = amounts(pass, lane, stroke, Heard::Acting::LANE)
        put(pass, lane, Clocks::Run.new(0, stroke.from, stroke.to), amounts, stroke)
      end

      def no_lane!(song, address)
        raise InvalidInput.of("no_lane", "/into",
                              "The effects of #{song.owner_name(address)} are the clip's own: envelopes in the clip " \
                              "move them, and carriers, but no lane.")
      end

      def in_region(pass, region_id, address, stroke)
        region = pass.song.directory.region(region_id).region
        stroke = stroke.cut(region.start_tick, region.end_tick) or return pass
        role = role_among(moves_of(pass.song, region, address))
        pass, once = RegionOnce.of(pass, region_id, address, role, stroke, always: @into == "once")
        pass, envelope = envelope_in(pass, region_id, address, role, stroke, once:)
        placed = pass.song.directory.region(region_id)
        pass, amounts = amounts(pass, envelope, stroke, turn_of(pass.song, placed, address))
        clip = pass.song.clip(placed.region.clip_id)
        Clocks.enum_for(:each_run, placed.region, clip, envelope, stroke.from, stroke.to).reduce(pass) do |now, run|
          put(now, envelope, run, amounts, stroke)
        end
      end

      def moves_of(song, region, address)
        song.clip(region.clip_id).envelopes.select { |envelope| envelope.target == address }
      end

      def role_among(envelopes)
        roles = envelopes.select(&:on).map(&:role)
        @role || (roles.include?("shift") && !roles.include?("set") ? "shift" : "set")
      end

      def envelope_in(pass, region_id, address, role, stroke, once:)
        region = pass.song.directory.region(region_id).region
        envelope = pass.song.clip(region.clip_id).envelope_for(address, role)
        made = envelope.nil?
        pass, envelope = embedded(pass, region, address, role, stroke, once:) if made
        pass, envelope = PassEnvelope.ready(pass, envelope, made)
        once ? PassEnvelope.unrolled(pass, region, envelope) : [pass, envelope]
      end

      # A new envelope in a clip; one that sets goes, outside of what is written, as it is set there without it.
      def embedded(pass, region, address, role, stroke, once:)
        song, clip = pass.song, pass.song.clip(region.clip_id)
        envelope = Transfer::Lanes.resting(song, address, role)
        envelope = envelope.with(clock: "once") if once
        envelope = envelope.with(points: course(song, region, envelope, stroke)) if role == "set"
        song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, envelope]))
        [pass.with(song:), envelope]
      end

      def course(song, region, envelope, stroke)
        clip = song.clip(region.clip_id)
        run = Clocks.enum_for(:each_run, region, clip, envelope, stroke.from, stroke.to).first
        from, to = [run.zero, 0].max, envelope.clock == "once" ? region.end_tick : run.zero + clip.length_ticks
        points = Course.points(Heard::Resolver.new(song, envelope.target), from, [to, from + 1].max)
        Conversion::Written.shifted(points, -run.zero)
      end

      def turn_of(song, placed, address)
        own = placed.track.id == song.tracks_of(address).first&.id
        own ? Heard::Acting.own_turn(placed.place) : placed.place
      end

      # What the envelope must give for the stroke to be heard.
      def amounts(pass, envelope, stroke, turn)
        address, role = envelope.target, envelope.role
        pieces = Heard::Resolver.new(pass.song, address, except: [envelope.id]).pieces(stroke.from, stroke.to)
        pass = pass.noting(overruled: later_setters(pieces, turn)) if role == "set"
        line = pass.song.trim_line(envelope) || [1.0, 0.0]
        alone = role == "set" && pieces.all?(&:alone?) && line == [1.0, 0.0]
        return [pass, Amounts.plain(stroke, @tolerance)] if alone

        amounts, found = Amounts.through(pieces, stroke, role, line, @tolerance)
        pass = pass.noting(idle: [[address, role, *found.idle]]) if found.idle
        [pass.with(limited: pass.limited || found.limited), amounts]
      end

      def later_setters(pieces, turn)
        later = pieces.filter_map(&:set).map(&:source).uniq.select { |source| source.clip && source.turn > turn }
        later.map { |source| source.clip.name }
      end

      # The part of a stroke that sounds in one run of the envelope.
      def put(pass, envelope, run, amounts, stroke)
        from, to = [run.from, stroke.from].max, [run.to, stroke.to].min
        first, last = run.position(from).round, run.position(to).round
        return pass unless last > first

        points = amounts.cut(from, to).thinned.map do |tick, value, shape|
          Point.new(tick: run.position(tick).round, value:, shape:)
        end
        song = Transfer::Lanes.change(pass.song, envelope.id) do |now|
          now.with(points: Splice.replace(now.points, points.first.tick, points.last.tick, points))
        end
        part = PlayedPart.new(envelope.id, first, last, from, to)
        pass.with(song:, written: [*pass.written, [envelope.target, part, stroke.cut(from, to)]])
      end
    end
  end
end
