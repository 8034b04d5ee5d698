# frozen_string_literal: true

module KindSatchel
  module Heard
    # What a macro makes of the knob of a parameter: the macro's own heard value in a frame, through the drive. It
    # stands where the knob would rest.
    class Driven
      # Who acts, for what is nobody's envelope.
      SOURCE = Source.new("macro", nil, nil, nil, -3).freeze

      # @param frame [Frame, nil] nil for the song
      # @return [Driven, nil] nil for a parameter that nothing drives, or that a hand holds
      def self.of(song, address, frame)
        driver = song.directory.driver(address) or return
        return unless song.held_value(address).nil? && song.parameter?(driver.macro)

        new(driver, Evaluation.of(song, frame&.region).signal(driver.macro))
      end

      attr_reader :macro

      # @param driver [Directory::Driver]
      # @param signal [#at, #pieces, #between] of the macro
      def initialize(driver, signal)
        @macro = driver.macro
        @drive = driver.drive
        @signal = signal
      end

      # @return [Float] normalised
      def at(tick) = @drive.at(@signal.at(tick))

      # @return [Array<Arc>] in order, without gaps
      def arcs(from, to) = Within.arcs(@signal, from, to).flat_map { |arc| arc.still? ? level(arc) : along(arc) }

      # What it stays between.
      # @return [Array(Float, Float)]
      def bounds(from, to) = @signal.between(from, to).map { |value| @drive.at(value) }.minmax

      private

      def level(arc) = [Level.new(arc.from, arc.to, @drive.at(arc.at(arc.from)), SOURCE)]

      # Cut where the macro goes past a stop.
      def along(arc)
        lines = @drive.lines
        return [Sourced.new(arc, arc.from, arc.to, *lines[0].last(2))] if lines.size == 1

        [arc.from, *crossings(arc, lines), arc.to].each_cons(2).filter_map do |from, to|
          next unless to > from

          middle = arc.at((from + to) / 2.0)
          line = lines.find { |low, high,| middle.between?(low, high) } || lines.last
          Sourced.new(arc, from, to, *line.last(2))
        end
      end

      def crossings(arc, lines)
        known = ->(a, b) { arc.jet(a, b) }
        places = lines.map { |from,| from }.drop(1)
        places.flat_map do |place|
          Crossings.of(arc.from.to_f, arc.to.to_f, Within::NARROW, known) do |tick|
            arc.at(tick) - place
          end
        end.sort
      end

      # A line of an arc that is nobody's envelope.
      class Sourced < Lined
        def source = SOURCE
      end
    end

    # A lane that trims, over a knob that is driven: gains multiply, others add the knob's distance from its default.
    class Trimmed
      include Arc

      # @param arc [Arc] of the lane
      # @param base [Arc] of the knob
      def initialize(arc, base, from, to, parameter)
        @arc, @base, @from, @to, @parameter = arc, base, from, to, parameter
        @source = arc.source
        @gain = parameter.scale.gain?
        @peak = Math.sqrt(parameter.scale.peak) if @gain
      end

      def still? = @arc.still? && @base.still?

      def straight?
        return @arc.straight? && @base.straight? unless @gain

        still? || (@arc.still? && @base.straight?) || (@base.still? && @arc.straight?)
      end

      def at(tick)
        @gain ? @arc.at(tick) * @base.at(tick) * @peak : @arc.at(tick) + @base.at(tick) - @parameter.default
      end

      def jet(from, to)
        lane, knob = @arc.jet(from, to), @base.jet(from, to)
        @gain ? lane * knob * Jet.level(@peak) : lane + knob + Jet.level(-@parameter.default)
      end
    end
  end
end
