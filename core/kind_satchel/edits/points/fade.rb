# frozen_string_literal: true

module KindSatchel
  module Edits
    # Fades a stretch in from nothing to what holds at its end, or out from what holds at its start to nothing. Nothing
    # is the foot of the envelope's travel: silence, 0 %, the largest cut. Curved as {Fades} says unless said otherwise;
    # in and out are mirror images.
    module Fade
      def self.call(song, input)
        next_song, name = Envelopes.change_stretch(song, input) do |envelope|
          from, to = input.values_at(:from_tick, :to_tick)
          if envelope.points.empty?
            raise InvalidInput.of("empty", "/envelope_id", "The envelope has no points; there is nothing to fade.")
          end

          shape = Fades.shape(envelope.role, Envelopes.scale(song, envelope), input[:direction], input[:curve])
          faded(envelope.points, from, to, points(envelope, from, to, input[:direction], shape))
        end
        [next_song, "fade #{input[:direction]} #{name}"]
      end

      # Beyond the last point, and before the first, the faded value goes on.
      def self.faded(points, from, to, fade)
        return fade if points.first.tick >= from && points.last.tick <= to
        return [*Splice.split(points, from)[0][0..-2], *fade] if points.last.tick <= to
        return [*fade[0..-2], *rest(points, to, fade.last)] if points.first.tick >= from

        Splice.replace(points, from, to, fade)
      end

      def self.rest(points, to, last) = Splice.join([last], Splice.split(points, to)[1])

      def self.points(envelope, from, to, direction, shape)
        foot = envelope.role_rules.values.min.to_f
        left, = Splice.split(envelope.points, from)
        _, right = Splice.split(envelope.points, to)
        values = direction == "in" ? [foot, right.first.value] : [left.last.value, foot]
        [Point.new(tick: from, value: values[0], shape:),
         Point.new(tick: to, value: values[1], shape: Shapes::Hold::PLAIN)]
      end
      private_class_method :points, :faded, :rest
    end
  end
end
