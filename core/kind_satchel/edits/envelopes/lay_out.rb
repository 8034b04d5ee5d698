# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lays the clip envelopes of regions, or of all regions of a track, out on track lanes. What is heard stays within
    # a bound that is said.
    module LayOut
      def self.call(song, input)
        placed = placed(song, input)
        addresses = input[:addresses]&.map&.with_index { |text, i| Inputs.target(song, text, "/addresses/#{i}") }
        laid = Conversion::LayOut.call(song, placed, addresses:)
        [laid.song, "lay #{PlainText.count(laid.converted, 'move')} of #{Regions.words(song, placed)} out",
         notices(laid)]
      end

      def self.placed(song, input)
        return Regions.named(song, input[:region_ids]) if input[:region_ids]
        raise InvalidInput.of("bad_request", "", "Say which regions, or which track.") unless input[:track_id]

        song.track(input[:track_id]).regions.map { |region| song.directory.region(region.id) }
      end

      # What is told of a conversion.
      # @param result [Conversion::Result]
      # @return [Array<Notice>]
      def self.notices(result)
        changed = difference(result.difference)
        result.separated.any? ? [changed, separated(result.separated)] : [changed]
      end

      # @return [Notice] which clips are made separate first
      def self.separated(clips)
        Notice.new("separated", clips.map(&:id),
                   "#{clips.map(&:name).join(', ')} #{clips.size == 1 ? 'is' : 'are'} made separate first")
      end

      # @param difference [Array(Float, Boolean)] see {Heard::Difference}
      def self.difference(difference)
        kind = difference[0] > Heard::Ramps::TOLERANCE ? "difference" : "same"
        Notice.new(kind, [], Heard::Difference.words(*difference))
      end
      private_class_method :placed
    end
  end
end
