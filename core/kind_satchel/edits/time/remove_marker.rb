# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes a marker away.
    module RemoveMarker
      def self.call(song, input)
        marker = SetMarker.marker!(song, input[:marker_id])
        [song.with(markers: song.markers.reject { |other| other.equal?(marker) }), "remove the marker #{marker.name}"]
      end
    end
  end
end
