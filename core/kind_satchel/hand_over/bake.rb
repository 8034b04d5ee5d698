# frozen_string_literal: true

module KindSatchel
  module HandOver
    # A song made to fit what the program on the other side can do. What all of a parameter's moves fit stays as it
    # is; of any other what is heard becomes one lane that sets, on its own track. What it loses is measured against
    # what is heard (see {Meter}).
    class Bake
      # The song that fits, and what each parameter loses, by track.
      Baked = Struct.new(:song, :losses)

      # @param song [Song]
      # @param limits [Limits]
      # @raise [InvalidInput] for limits that name tracks there are none of
      def initialize(song, limits)
        @song = song
        @limits = limits
        (limits.track_ids || []).each { |id| song.track(id) }
        @finish = finish
      end

      # One by one, in this process.
      PLAIN = ->(list, work, made) { list.each_with_index.map { |one, i| made.call(i, work.call(one)) } }

      # @param map [#call] does the work on each of a list, and makes something of each answer, with its place; gives
      #   that, in order
      # @return [Baked]
      def call(map = PLAIN)
        worked = ->(address) { of(address).then { |points, loss| [packed(points), loss] } }
        made = ->(place, (points, loss)) { [drawn(addresses[place], unpacked(points)), loss] }
        work = addresses.zip(map.call(addresses, worked, made)).map do |address, (points, loss)|
          [address, points, loss]
        end
        Baked.new(written(work), work.map(&:last))
      end

      # What is heard of one parameter, before and after.
      # @param address [Address]
      # @return [Array(Course, Course)]
      def courses(address)
        before = course(address)
        points, = of(address)
        [before, points == :whole ? before : line(points, before.scale)]
      end

      private

      def addresses = @addresses ||= ordered

      def ordered
        list = @song.sounded
        moves = @song.automated.include?(Address.tempo) || @song.directory.driver(Address.tempo) || @song.held_bpm
        tempo = moves ? [Address.tempo] : []
        list.sort_by do |address|
          [@song.tracks_of(address).map { |track| @song.tracks.index(track) }.min || 0, address.to_s]
        end + tempo
      end

      # So far something may move.
      def finish
        lanes = @song.tracks.flat_map(&:lanes).filter_map { |lane| lane.points.last&.tick }
        [[@song.length_ticks, *lanes].max + 1, Timing::LAST_TICK].min
      end

      def course(address) = Course.of(@song, address, 0, @finish, tolerance: fineness)
      def fineness = @limits.tolerance / (few? ? 2 : 4)
      def few? = @limits.points_per_lane || @limits.points_per_second
      def seconds = @seconds ||= @song.tempo.method(:seconds_at)

      # Points may come from another process: many numbers travel fastest as bytes.
      def packed(points)
        points == :whole ? points : points.transpose.zip(%w[l* d*]).map { |list, form| list.pack(form) }
      end

      def unpacked(packed)
        packed == :whole ? packed : packed.zip(%w[l* d*]).map { |bytes, form| bytes.unpack(form) }.transpose
      end

      # What stands in a lane; one value by itself stays as it is.
      def drawn(address, points)
        return points if points == :whole || points.size == 1

        shape = @song.parameter(address).scale.steps ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN
        points.map { |tick, value| Point.new(tick:, value:, shape:) }
      end

      # @return [Array] its points (`:whole` where it goes as it is; empty where it rests on its knob), and its loss
      def of(address)
        return [:whole, loss(address, nil, [0.0, 0.0, 0], nil)] if whole?(address)

        resolver = Heard::Resolver.new(@song, address)
        pieces = resolver.pieces(0, @finish)
        before = Course.of_pieces(pieces, resolver.scale, fineness)
        points, why = points(address, before)
        meter = Meter.new(resolver.scale, line(points, resolver.scale)).over(pieces)
        [points, loss(address, points.size, [meter.largest, meter.mean, meter.tick], why)]
      end

      def points(address, before)
        return [[[0, before.values[0]]], "keeps the tempo it begins with"] if address.song? && @limits.one_tempo
        return [[[0, @song.knob(address)]], "#{Loss::LEFT_OUT}: its track does not go along"] unless along?(address)
        return [[[0, @song.knob(address)]], "#{Loss::LEFT_OUT}: effects of a clip have no lanes"] if address.clip_id
        return [[[0, @limits.rounded(before.level)]], nil] if before.level

        [Fit.new(before, @song.tempo, @limits).points, nil]
      end

      def loss(address, points, (largest, mean, tick), why) = Loss.new(address:, points:, largest:, mean:, tick:, why:)

      def along?(address)
        @limits.track_ids.nil? || @song.tracks_of(address).map(&:id).intersect?(@limits.track_ids)
      end

      # Whether all that acts on it has room as it is.
      def whole?(address)
        if !along?(address) || (address.song? && @limits.one_tempo) ||
           @song.directory.driver(address) || @song.held?(address)
          return false
        end

        homes = homes_of.fetch(address, [])
        homes.all? { |home| @limits.fits?(home, seconds) } && homes.none? do |home|
          @song.directory.moved_settings.key?(home.envelope.id)
        end
      end

      def homes_of = @homes_of ||= @song.directory.envelopes.each_value.group_by { |home| home.envelope.target }

      # As the other side draws it: steps hold, all else are lines.
      def line(points, scale)
        ticks, values = [], []
        points.each_with_index do |(tick, value), i|
          if scale.steps && i.positive? && values[-1] != value && ticks[-1] != tick
            ticks << tick
            values << values[-1]
          end
          ticks << tick
          values << scale.heard(value)
        end
        ticks << @finish
        values << values[-1]
        Course.new(ticks:, values:, scale:)
      end

      # The song with what was worked out in it.
      def written(work)
        kept = work.select { |_, points, _| points == :whole }.to_h { |address, *| [address, true] }
        knobs, lanes = work.reject { |address, *| kept[address] }.partition { |_, points, _| points.size == 1 }
        song = knobs.reduce(without_moves(kept)) do |made, (address, points, _)|
          made.owned(address).turned(points[0][1])
        end
        song = laid(song, lanes).with(set_aside: [])
        Integrity.check(nil, song)
        song
      end

      # Without all that moves what is baked, and the moves of settings and macros, which have nothing left to do.
      def without_moves(kept)
        stays = ->(envelope) { kept[envelope.target] || !@song.parameter?(envelope.target) }
        tracks = @song.tracks.map do |track|
          track.with(lanes: track.lanes.select(&stays), devices: track.devices.map { |device| undriven(device, kept) },
                     regions: track.regions.reject { |region| emptied?(region, &stays) })
        end
        clips = @song.clips.transform_values { |clip| clip.with(envelopes: clip.envelopes.select(&stays)) }
        used = tracks.flat_map(&:regions).to_h { |region| [region.clip_id, true] }
        @song.with(tracks:, held_bpm: nil, clips: clips.reject { |id, clip| clip.carrier? && !used[id] })
      end

      def undriven(device, kept)
        macros = device.macros.map { |macro| macro.with(drives: macro.drives.select { |drive| kept[drive.target] }) }
        device.held.empty? && device.macros.empty? ? device : device.with(held: {}, macros:)
      end

      # A region of a carrier that carries nothing any more.
      def emptied?(region, &)
        clip = @song.clip(region.clip_id)
        clip.carrier? && clip.envelopes.none?(&)
      end

      # @param lanes [Array<Array(Address, Array<Point>)>] what each moves, and its points
      def laid(song, lanes)
        made = lanes.each_with_index.map do |(address, points, _), i|
          [song.owned(address).lane_track.id, Envelope.fresh(id: "lane-#{song.next_id + i}", target: address, points:)]
        end
        by_track = made.group_by(&:first).transform_values { |list| list.map(&:last) }
        tracks = song.tracks.map do |track|
          by_track.key?(track.id) ? track.with(lanes: track.lanes + by_track[track.id]) : track
        end
        song.with(tracks:, next_id: song.next_id + made.size)
      end
    end
  end
end
