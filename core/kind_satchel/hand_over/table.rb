# frozen_string_literal: true

module KindSatchel
  module HandOver
    # Moves as comma-separated values (RFC 4180): the corners of what is heard, samples of it, or the points as they
    # are drawn, layer by layer.
    module Table
      POINTS = %w[address position tick seconds normalised value unit].freeze
      DRAWN = %w[envelope owner address role clock tick position seconds amount value shape].freeze
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
              lines << line([address, song.meters.text(tick), tick, song.tempo.seconds_at(tick), value,
                             natural(scale, value), scale.unit.word])
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
          raise InvalidInput.of("too_many", "/step_ticks",
                                "That is more than #{MOST_ROWS} values; take a longer step, or fewer parameters.")
        end

        ticks = (from...to).step(step).to_a
        columns = addresses.map do |address|
          Heard::Resolver.new(song, address).then { |one| one.at_each(ticks).map { |value| natural(one.scale, value) } }
        end
        Enumerator.new do |lines|
          lines << line(["tick", "seconds", *addresses.map(&:to_s)])
          ticks.each_with_index do |tick, i|
            lines << line([tick, song.tempo.seconds_at(tick), *columns.map { |column| column[i] }])
          end
        end
      end

      # The points of every envelope by itself, in its own time: of a lane that of the song, of a clip's that of the
      # clip, its seconds as they pass where the clip lies first. Waves have none.
      # @param addresses [Array<Address>] what they move
      # @return [Enumerator<String>] lines
      def drawn(song, addresses)
        wanted = addresses.to_h { |address| [address, true] }
        Enumerator.new do |lines|
          lines << line(DRAWN)
          song.directory.envelopes.each_value do |home|
            envelope = home.envelope
            next unless wanted[envelope.target] && song.parameter?(envelope.target)

            start = if home.clip
                      song.directory.regions_of_clip(home.clip.id).map { |placed| placed.region.start_tick }.min || 0
                    else
                      0
                    end
            envelope.points.each { |point| lines << line(cells(song, home, start, point)) }
          end
        end
      end

      def cells(song, home, start, point)
        envelope = home.envelope
        amount = envelope.amount(point.value)
        text = envelope.role_rules.amount_text(song.parameter(envelope.target).scale, amount)
        seconds = song.tempo.seconds_at(start + point.tick) - song.tempo.seconds_at(start)
        [envelope.id, home.clip ? "clip #{home.clip.name}" : "track #{home.track.name}", envelope.target,
         envelope.role, envelope.clock, point.tick,
         song.meters_of(home.owner).text(point.tick), seconds, amount, text, Shapes.record(point.shape)["shape"]]
      end

      # Silence is -inf.
      def natural(scale, value)
        number = scale.natural(value)
        number.is_a?(Float) && number.infinite? ? "-inf" : number
      end

      def line(cells) = "#{cells.map { |cell| PlainText.quoted(cell.to_s) }.join(',')}\r\n"
      private_class_method :cells, :line, :natural
    end
  end
end
