# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of envelopes share.
    module Envelopes
      module_function

      # Replaces one envelope where it lives.
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Envelope, nil] the next one; nil removes it
      # @return [Song]
      def change(song, envelope_id, &) = Transfer::Lanes.change(song, envelope_id, &)

      # Gives some points of an envelope their next form.
      # @param input [Hash] `:envelope_id` and `:runs`, see {Selection}
      # @yieldparam selection [Selection]
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Array<Point>] all points of the next envelope
      # @return [Array(Song, String)] the next song, and which points it was about ("3 points of Cutoff")
      def change_points(song, input)
        size = nil
        next_song = change(song, input[:envelope_id]) do |envelope|
          selection = Selection.new(envelope.points, input[:runs])
          size = selection.size
          envelope.with(points: yield(selection, envelope))
        end
        [next_song, "#{PlainText.count(size, 'point')} of #{name(song, input[:envelope_id])}"]
      end

      # Gives a stretch of an envelope its next form.
      # @param input [Hash] `:envelope_id`, `:from_tick`, `:to_tick`
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Array<Point>] all points of the next envelope
      # @return [Array(Song, String)] the next song, and the parameter's name
      # @raise [InvalidInput]
      def change_stretch(song, input, &block)
        unless input[:to_tick] > input[:from_tick]
          raise InvalidInput.of("too_short", "/to_tick",
                                "A stretch ends after it starts.")
        end

        [change(song, input[:envelope_id]) do |envelope|
          envelope.with(points: block.call(envelope))
        end, name(song, input[:envelope_id])]
      end

      # @return [Scales::Scale] of the parameter an envelope moves
      def scale(song, envelope) = song.parameter(envelope.target).scale

      # @param text [String] an amount as people write it
      # @return [Float] the value of a point that comes to it, between the limits of the envelope
      # @raise [InvalidInput]
      def typed(envelope, scale, text)
        rules = envelope.role_rules
        value = envelope.value_of(rules.parse(scale, text))
        least, most = Roles.full(envelope.role)
        return value.clamp(least, most) if value.between?(least - 1e-9, most + 1e-9)

        ends = [least, most].map { |one| rules.amount_text(scale, envelope.amount(one)) }
        raise InvalidInput.of("out_of_range", "", "#{text.strip} lies outside the limits, #{ends.join(' to ')}.")
      end

      # @return [String] the name of what an envelope moves
      def name(song, envelope_id) = song.parameter_name(song.directory.envelope(envelope_id).envelope.target)

      # Points from a place on, moved in time.
      def pushed(points, from, ticks)
        return points if ticks.zero?

        points.each_with_index.map { |point, i| i < from ? point : point.with(tick: [point.tick + ticks, 0].max) }
      end

      # @return [String] what becomes of drawn points that something takes the place of
      def replaced(number) = number == 1 ? "its point is replaced" : "its #{number} points are replaced"
    end
  end
end
