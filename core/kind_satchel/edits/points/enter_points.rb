# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts points on a value and a position as people write them. Several take the value together; in time the first
    # goes to the position and the others keep their distance from it. What cannot be is refused, not cut short.
    #
    # The position is in the envelope's own time; with `region_id` it is one of the song, where the envelope sounds in
    # that region.
    module EnterPoints
      def self.call(song, input)
        next_song, what = Envelopes.change_points(song, input) do |selection, envelope|
          points = if input[:value]
                     valued(selection, envelope, Envelopes.scale(song, envelope),
                            input[:value])
                   else
                     envelope.points
                   end
          next points unless input[:position]

          placed(song.meters_of(song.directory.envelope(envelope.id).owner), Selection.new(points, selection.runs),
                 wanted(song, envelope, input))
        end
        [next_song, "put #{what} on #{[input[:value], input[:position]].compact.join(' at ')}"]
      end

      def self.valued(selection, envelope, scale, text)
        value = InvalidInput.under("/value") { Envelopes.typed(envelope, scale, text) }
        selection.revalued(envelope.role_rules.values) { value }
      end

      # The tick in the envelope's own time that the position names.
      def self.wanted(song, envelope, input)
        own = song.meters_of(song.directory.envelope(envelope.id).owner)
        tick = InvalidInput.under("/position") { (input[:region_id] ? song.meters : own).parse(input[:position]) }
        return tick unless input[:region_id]

        region = song.directory.region(input[:region_id]).region
        unless tick.between?(region.start_tick, region.end_tick - 1)
          raise InvalidInput.of("outside", "/position",
                                "In the song this region goes from #{song.meters.text(region.start_tick)} to " \
                                "#{song.meters.text(region.end_tick)}.")
        end

        Clocks.position(region, song.clip(region.clip_id), envelope, tick).round
      end

      def self.placed(meters, selection, wanted)
        ticks = wanted - selection.first.tick
        points = selection.retimed { |point| point.tick + ticks }
        stopped = selection.indexes.find { |i| points[i].tick != selection.points[i].tick + ticks }
        return points unless stopped

        raise InvalidInput.of("in_the_way", "/position",
                              "Another point stands in the way: at #{meters.text(points[stopped].tick)} it would be " \
                              "passed.")
      end
      private_class_method :valued, :wanted, :placed
    end
  end
end
