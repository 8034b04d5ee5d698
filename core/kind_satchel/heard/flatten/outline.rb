# frozen_string_literal: true

module KindSatchel
  module Heard
    # Curves as line chains, flat: tick, normalised value, tick, value, ... in order; two corners on one tick are a
    # jump.
    module Outline
      # Good for a strip 250 px high.
      FOR_THE_EYE = 0.002
      # Waves that are worked out while a hand moves their rate are drawn one by one up to fewer cycles, and their
      # band more coarsely.
      LIVE_SHARE = 8
      BAND_PX = 1280
      MOST_LIVE_CYCLES = 1000
      # What would take about so long is drawn by its bounds from the first.
      MOST_LIVE_MS = 800.0
      # Of more points than these only the bounds of each pixel are worked out.
      POINTS_A_PIXEL = 2
      # A piece no wider than this many pixels is drawn without looking for where it bends: it turns at every pixel,
      # and this often at least.
      NARROW_PX = 12
      TURNS = 4

      module_function

      # What is heard, limited and stepped.
      # @param pieces [Array<Piece>]
      # @param pixel [Float] ticks to a pixel of a drawing: what is narrow there turns at every one
      # @return [Array<Numeric>]
      def of_pieces(pieces, tolerance: FOR_THE_EYE, pixel: 0.0)
        chain = Chain.new
        pieces.each do |piece|
          next stepped(chain, piece) if piece.scale.steps

          limited(chain, piece) { narrow?(piece, pixel) ? by_pixels(piece, pixel) : piece.breaks(tolerance) }
        end
        chain.flat
      end

      # What is heard over a stretch, for a drawing so many pixels wide: where it crowds, the least and the most of a
      # pixel.
      # @param resolver [Resolver]
      # @param width_px [Integer]
      # @return [Array<Numeric>] at most four corners a pixel
      def heard(resolver, from, to, width_px:)
        live = resolver.acting.live_moves?
        crowded = live && Effort.new(resolver.song).of(resolver.address, from, to) > MOST_LIVE_MS
        crowded ||= resolver.amounts.cycles(from, to) > (live ? width_px / LIVE_SHARE : width_px)
        crowded ||= resolver.acting.crowded?(from, to, width_px * POINTS_A_PIXEL)
        return Crowd.new(resolver).band(from, to, live ? [width_px, BAND_PX].min : width_px) if crowded

        pixel = (to - from).fdiv(width_px)
        Crowd.thinned(of_pieces(resolver.pieces(from, to), pixel:), from, to, width_px)
      rescue TooManyPieces, Sources::TooManyCycles
        Crowd.new(resolver).band(from, to, width_px)
      end

      # A kept move, small: share of its length, share of the travel, ...
      # @param move [KeptMove]
      # @return [Array<Float>]
      def of_kept(move)
        corners = of_envelope(move.drawn, to: move.length_ticks + 1, tolerance: 0.01)
        corners.each_slice(2).flat_map do |tick, value|
          [(tick / move.length_ticks.to_f).clamp(0.0, 1.0).round(4), move.between(value).round(4)]
        end
      end

      # An envelope by itself, in its own time, from its first point to its last, an LFO over all of from...to; or the
      # segments that start there.
      def of_envelope(envelope, from: 0, to: Timing::LAST_TICK, tolerance: FOR_THE_EYE)
        return of_wave(envelope, from, to, tolerance) if envelope.lfo?

        chain = Chain.new
        return chain.flat if envelope.points.empty?

        envelope.segment_from(from) do |segment|
          break if segment.start >= to || segment.finish > Timing::LAST_TICK

          chain.add(segment.start, segment.a)
          segment.breaks(segment.start, segment.finish, 1, tolerance).each { |tick| chain.add(tick, segment.at(tick)) }
          chain.add(segment.finish, segment.at(segment.finish))
        end
        last = envelope.points.last
        chain.add(last.tick, envelope.at(last.tick)) if last.tick < to
        chain.flat
      end

      # The same of one whose settings are moved, as it is heard in a region, or on its track.
      # @param home [Directory::Home]
      # @param region [Region, nil] nil for a lane
      # @param to [Integer] in its own time
      # @param pixel [Float] see {of_pieces}
      # @param coarse [Boolean] whether it is drawn by where it stays
      # @return [Array<Numeric>, nil] in its own time; nil where nothing moves its settings
      def of_live(song, home, region, to, tolerance: FOR_THE_EYE, pixel: 0.0, coarse: false)
        live = LiveMove.of(song, home.envelope, region) or return
        return [] unless home.envelope.acts?

        run = LiveMove.run(song, home, region, to)
        if coarse || Effort.new(song).share(home.envelope, region, run.from, run.to) > MOST_LIVE_MS
          return box(live, run, to)
        end
        return box(live, run, to) if home.envelope.lfo? && live.cycles(run.from, run.to) > MOST_LIVE_CYCLES

        chain = Chain.new
        live.each_arc(run, nil) do |arc|
          turns = narrow?(arc, pixel) ? by_pixels(arc, pixel) : arc.breaks(arc.from, arc.to, 1.0, tolerance)
          [arc.from, *turns, arc.to].each { |tick| chain.add(run.position(tick), arc.at(tick)) }
        end
        chain.flat
      rescue TooManyPieces, Sources::TooManyCycles
        framed(home.envelope.role_rules.values.minmax.map(&:to_f), to)
      end

      # Where it stays.
      def box(live, run, to) = framed(live.bounds(run.from, run.to), to)
      def framed((low, high), to) = [0, low, 0, high, to, high, to, low]

      def of_wave(envelope, from, to, tolerance)
        chain = Chain.new
        envelope.each_segment(Clocks::Run.new(0, from, to, nil)) do |run, segment|
          start, finish = [run.zero + segment.start, run.from, from].max, [run.zero + segment.finish, run.to, to].min
          next unless finish > start

          places = [start - run.zero, finish - run.zero]
          [places[0], *segment.breaks(*places, 1, tolerance), places[1]].each do |place|
            chain.add(run.zero + place, segment.at(place))
          end
        end
        chain.flat
      end

      def narrow?(arc, pixel) = pixel.positive? && arc.to - arc.from <= pixel * NARROW_PX

      def by_pixels(piece, pixel)
        count = piece.straight? ? 1 : [((piece.to - piece.from) / pixel).ceil, TURNS].max
        (1...count).map { |i| piece.from + ((piece.to - piece.from) * i / count.to_f) }
      end

      # The block tells where it turns.
      def limited(chain, piece)
        return level(chain, piece) if piece.still?

        tick, value = piece.from, piece.raw(piece.from)
        chain.add(tick, value.clamp(0.0, 1.0))
        yield.each do |finish|
          arrived = piece.raw(finish)
          line(chain, tick, value, finish, arrived)
          tick, value = finish, arrived
        end
        line(chain, tick, value, piece.to, piece.raw(piece.to))
      end

      def line(chain, tick, value, finish, arrived)
        return chain.add(finish, arrived) if value.between?(0.0, 1.0) && arrived.between?(0.0, 1.0)

        crossings(tick, value, finish, arrived).each { |at, limit| chain.add(at, limit) }
        chain.add(finish, arrived.clamp(0.0, 1.0))
      end

      def level(chain, piece)
        value = piece.at(piece.from)
        chain.add(piece.from, value)
        chain.add(piece.to, value)
      end

      # Where a straight stretch meets the limits of the travel.
      def crossings(from, a, to, b)
        list = [0.0, 1.0].filter_map do |limit|
          [from + ((to - from) * (limit - a) / (b - a)), limit] if (a - limit) * (b - limit) < 0
        end
        list.sort_by!(&:first)
      end

      def stepped(chain, piece)
        Steps.of(piece).each do |from, to, value|
          chain.add(from, value)
          chain.add(to, value)
        end
      end

      private_class_method :box, :framed, :of_wave, :narrow?, :by_pixels, :limited, :level, :crossings, :line, :stepped
    end
  end
end
