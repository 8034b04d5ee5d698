# frozen_string_literal: true

module KindSatchel
  module Edits
    # Names a place in the song; one that was named there already gets the new name.
    module AddMarker
      def self.call(song, input)
        others = song.markers.reject { |marker| marker.tick == input[:tick] }
        if others.size >= Marker::MOST
          raise InvalidInput.of("too_many_markers", "", "A song has at most #{Marker::MOST} markers.")
        end

        marker = Marker.new(id: "marker-#{song.next_id}", tick: input[:tick], name: name(song, input))
        [song.with(next_id: song.next_id + 1, markers: [*others, marker].sort_by(&:tick)),
         "mark #{song.meters.text(marker.tick)} as #{marker.name}"]
      end

      # "Marker", "Marker 2", ... unless said otherwise.
      def self.name(song, input) = input[:name]&.strip || Transfer::Clips.free_name(song.markers.map(&:name), "Marker")
      private_class_method :name
    end
  end
end
