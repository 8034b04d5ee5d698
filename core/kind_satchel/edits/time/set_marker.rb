# frozen_string_literal: true

module KindSatchel
  module Edits
    # Moves a marker, or gives it another name. One that stands where it comes is taken away.
    module SetMarker
      def self.call(song, input)
        marker = marker!(song, input[:marker_id])
        changes = input.slice(:tick, :name)
        raise InvalidInput.of("bad_request", "", "Say where the marker comes, or its name.") if changes.empty?

        moved = marker.with(**changes)
        others = song.markers.reject { |other| other.id == marker.id }
        there = others.find { |other| other.tick == moved.tick }
        [song.with(markers: [*(others - [there]), moved].sort_by(&:tick)),
         changes.key?(:tick) ? "move the marker #{marker.name}" : "call the marker #{marker.name} #{moved.name}",
         there ? [Notice.new("cut", [there.id], "takes the place of the marker #{there.name}")] : []]
      end

      # @raise [NotFound]
      def self.marker!(song, id)
        song.markers.find { |marker| marker.id == id } or
          raise NotFound.of("unknown_marker", "/marker_id", "There is no marker #{id.inspect} in this song.")
      end
    end
  end
end
