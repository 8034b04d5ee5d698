# frozen_string_literal: true

module KindSatchel
  module HandOver
    # Moves as comma-separated values (RFC 4180): the corners of what is heard, or samples of it.
    module Table
      POINTS = %w[address position tick seconds normalised value unit].freeze
      # The most rows of one table.
      MOST_ROWS = 2_000_000

      module_function

      # @param addresses [Array<Address>]
      # @param tolerance [Float] how far lines between the points may stray, as a share of the travel
      # @return [Enumerator<String>] lines
      # @raise [InvalidInput] for too many of them
      def points(song, addresses, from, to, tolerance: 0.001)
        Enumerator.new do |lines|
          lines << line(POINTS)
          addresses.each do |address|
            course = Course.of(song, address, from, to, tolerance: tolerance / 2)
            scale = course.scale
            Thinning.keep(course.ticks, course.values, tolerance / 2).each do |i|
              tick, value = course.ticks[i], course.values[i]
              lines << line([address, song.meters.text(tick), tick, song.tempo.seconds_at(tick), value, natural(scale, value), scale.unit.word])
            end
          end
        end
      end

      # A column for each parameter, in its own unit.
      # @param step [Integer] ticks
      # @return [Enumerator<String>] lines
      # @raise [InvalidInput] for too many of them
      def samples(song, addresses, from, to, step)
        if ((to - from) / step) * [addresses.size, 1].max > MOST_ROWS
          raise InvalidInput.of("too_many", "/step_ticks", "That is more than #{MOST_ROWS} values; take a longer step, or fewer parameters.")
        end

        ticks = (from...to).step(step).to_a
        columns = addresses.map { |address| Heard::Resolver.new(song, address).then { |one| one.at_each(ticks).map { |value| natural(one.scale, value) } } }
        Enumerator.new do |lines|
          lines << line(["tick", "seconds", *addresses.map(&:to_s)])
          ticks.each_with_index { |tick, i| lines << line([tick, song.tempo.seconds_at(tick), *columns.map { |column| column[i] }]) }
        end
      end

      # Silence is -inf.
      def natural(scale, value)
        number = scale.natural(value)
        number.is_a?(Float) && number.infinite? ? "-inf" : number
      end

      def line(cells) = "#{cells.map { |cell| quoted(cell.to_s) }.join(',')}\r\n"
      def quoted(text) = text.match?(/[",\r\n]/) ? "\"#{text.gsub('"', '""')}\"" : text
      private_class_method :line, :quoted, :natural
    end
  end
end
