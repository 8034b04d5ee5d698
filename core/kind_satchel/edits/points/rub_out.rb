# frozen_string_literal: true

module KindSatchel
  module Edits
    # Rubs out a stretch: between what holds at its two ends the envelope goes straight. With `push` the stretch of time
    # is taken out, and all that follows moves up.
    module RubOut
      def self.call(song, input)
        from, to = input.values_at(:from_tick, :to_tick)
        next_song, name = Envelopes.change_stretch(song, input) do |envelope|
          next Splice.replace(envelope.points, from, to, [], later: from - to) if input.fetch(:push, false)

          ends(envelope.points, from, to)
        end
        meters = song.meters_of(song.directory.envelope(input[:envelope_id]).owner)
        [next_song, "rub out #{meters.text(from)} to #{meters.text(to)} of #{name}"]
      end

      def self.ends(points, from, to)
        return points if points.empty?

        start = Splice.split(points, from)[1].first.with(shape: Shapes::Straight::PLAIN)
        Splice.replace(points, from, to, [start, Splice.split(points, to)[0].last])
      end
      private_class_method :ends
    end
  end
end
