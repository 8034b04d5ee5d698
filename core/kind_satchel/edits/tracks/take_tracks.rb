# frozen_string_literal: true

module KindSatchel
  module Edits
    # Takes the tracks of another song in, with their clips, moves and lanes: those that hold regions, under ids of
    # this song. `document` is that song's, `start_tick` where its beginning comes to lie, `track_ids` (all, where not
    # given) which of them.
    module TakeTracks
      def self.call(song, input)
        other = InvalidInput.under("/document") { Document.load(input[:document]) }
        tracks = chosen(other, input[:track_ids])
        graft = Transfer::Graft.new(song, other)
        tracks.each { |track| graft.track(track, regions: track.regions, start_tick: input.fetch(:start_tick, 0)) }
        [graft.song, "take in #{PlainText.count(tracks.size, 'track')} of #{other.name}",
         graft.lost.empty? ? [] : [Carrying.lost(graft.lost)]]
      end

      def self.chosen(other, ids)
        list = if ids
                 ids.map do |id|
                   InvalidInput.under("/track_ids") { other.track(id) }
                 end
               else
                 other.tracks.select(&:holds_regions?)
               end
        bare = list.find { |track| !track.holds_regions? }
        if bare
          raise InvalidInput.of("no_regions_here", "/track_ids",
                                "#{bare.name} is a #{bare.kind} track; it holds nothing to take in.")
        end
        raise InvalidInput.of("nothing_to_take", "/document", "That song has no track with material.") if list.empty?

        list
      end
      private_class_method :chosen
    end
  end
end
