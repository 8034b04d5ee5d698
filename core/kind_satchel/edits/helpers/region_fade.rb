# frozen_string_literal: true

module KindSatchel
  module Edits
    # The envelope that scales the volume of one region, with its fades: see {FadeRegion}.
    class RegionFade
      SIDES = %w[in out].freeze
      # Over so many stretches a fade is multiplied into what is not level.
      STRETCHES = 96
      STRAY = 0.002

      # @param placed [Directory::Placed] of a region that has its clip to itself
      def initialize(song, placed, clip)
        @song, @placed, @clip = song, placed, clip
        @region = placed.region
        @start = @region.offset_ticks
        @finish = @start + @region.length_ticks
        @volume = Address.new(owner_id: placed.track.id, device_id: "channel", parameter_id: "volume")
        @known = clip.envelope_for(@volume, "scale")
        check if @known
      end

      # @param side [String] "in" or "out"
      # @param length [Integer] ticks, 0 for none
      # @return [Array(Array<Envelope>, Boolean)] those of the clip, and whether the product was rounded to lines
      def envelopes(side, length, curve = nil)
        points = base
        shapes = SIDES.to_h { |one| [one, own_shape(points, one)] }
        lengths = SIDES.to_h { |one| [one, own_length(points, one)] }
        SIDES.each { |one| points = bare(points, one) if shapes[one] }
        lengths[side] = length
        shapes[side] = Fades.shape("scale", scale, side, curve)
        @rounded = false
        points = met(lengths).reduce(points) do |list, (one, ticks)|
          ticks.zero? ? list : faded(list, one, ticks, shapes[one])
        end
        [placed_among(points), @rounded]
      end

      private

      def check
        Conversion::Moved.refuse(@song, @known, "/region_id")
        return if @known.on

        raise InvalidInput.of("off", "/region_id", "The move that scales its volume is off; switch it on or remove it.")
      end

      def scale = @song.parameter(@volume).scale

      # What scales it now, in the time of a clock that runs once; level where nothing does.
      def base
        return [level(@start)] unless @known
        return @known.points if @known.clock == "once" && !@known.lfo? && @known.full_limits? && @known.points.any?
        return [level(@start)] if @known.points.empty? && !@known.lfo?

        points = Conversion::Written.in_region(@song, @region, @clip, @known)
        Conversion::Written.shifted(points, @start - @region.start_tick)
      end

      def level(tick, value = 1.0) = Point.new(tick:, value:, shape: Shapes::Hold::PLAIN)

      # The length of the fade on a side; 0 where there is none.
      def own_length(points, side)
        return 0 unless own_shape(points, side)

        side == "in" ? points[1].tick - @start : @finish - points[-2].tick
      end

      def own_shape(points, side)
        first, second = side == "in" ? points.first(2) : points.last(2)
        return unless second

        silent, edge = side == "in" ? [first, @start] : [second, @finish]
        other = side == "in" ? second : first
        curved = first.shape.is_a?(Shapes::Curved)
        first.shape if curved && silent.value.zero? && silent.tick == edge && other.value.positive?
      end

      # Without the fade of a side.
      def bare(points, side)
        return points.drop(1) if side == "in"

        [*points[0..-3], points[-2].with(shape: Shapes::Hold::PLAIN)]
      end

      # Two that would lie over each other end at the middle of that.
      def met(lengths)
        over = lengths["in"] + lengths["out"] - @region.length_ticks
        return lengths if over <= 0

        middle = @region.length_ticks - lengths["out"] + (over / 2)
        { "in" => middle, "out" => @region.length_ticks - middle }
      end

      def faded(points, side, ticks, shape)
        from, to = side == "in" ? [@start, @start + ticks] : [@finish - ticks, @finish]
        list = Splice.between(points, from, to)
        value = list.first.value
        flat = list.all? { |point| (point.value - value).abs < Splice::SAME }
        fade = flat ? curve(side, from, to, value, shape) : product(list, side, from, to, shape)
        left, right = Splice.split(points, from)[0], Splice.split(points, to)[1]
        side == "in" ? Splice.join(fade, right) : Splice.join(held(left), fade)
      end

      # Up to a fade out it stays what it comes to.
      def held(left) = left.size > 1 ? left : left.map { |point| point.with(shape: Shapes::Hold::PLAIN) }

      def curve(side, from, to, value, shape)
        ends = side == "in" ? [0.0, value] : [value, 0.0]
        [Point.new(tick: from, value: ends[0], shape:), level(to, ends[1])]
      end

      # Lines of what scales it times the fade.
      def product(list, side, from, to, shape)
        @rounded = true
        drawn = Envelope.fresh(id: "fade", target: @volume, role: "scale", clock: "once", points: list)
        length = to - from
        ticks = [*list.map(&:tick), *(0..STRETCHES).map { |i| (i * length / STRETCHES.to_f).round }].uniq.sort
        values = ticks.map do |tick|
          weight = shape.weight(tick.fdiv(length))
          drawn.at(tick) * (side == "in" ? weight : 1 - weight)
        end
        Thinning.keep(ticks, values, STRAY).map do |i|
          Point.new(tick: from + ticks[i], value: values[i].clamp(0.0, 1.0), shape: Shapes::Straight::PLAIN)
        end
      end

      # Nothing is left of one that was made for a fade and has none.
      def placed_among(points)
        kept = points.all? { |point| (point.value - 1).abs < Splice::SAME } ? nil : envelope(points)
        return [*@clip.envelopes, kept].compact unless @known

        @clip.envelopes.filter_map { |one| one.id == @known.id ? kept : one }
      end

      def envelope(points)
        made = @known || Envelope.fresh(id: "envelope-#{@song.next_id}", target: @volume, role: "scale")
        made.bare.with(clock: "once", own_length_ticks: nil, source: Sources::Drawn::PLAIN, on: true, points:)
      end
    end
  end
end
