# frozen_string_literal: true

module KindSatchel
  module Heard
    # In what the settings of moves are resolved: the song, for those of a lane; one region, for those of its clip's
    # moves.
    #
    # In the frame of a region the envelopes of its clip act at the region's positions over the whole run, also where
    # the region does not sound, on whatever they move on the way. The region stands for its whole track there, and
    # another region of the same clip never acts on the settings. Lanes and what lies on other tracks act at song
    # ticks; before tick 0 they are taken at tick 0.
    class Frame
      # The region as if it began at the start of its run and never ended.
      Reach = Struct.new(:id, :clip_id, :start_tick, :end_tick, :offset_ticks, :span_ticks, :looped, :muted, :phases)

      # One for each region of a song, kept with it.
      # @param region [Region, nil] of the song; nil for the frame of the song
      # @return [Frame]
      def self.of(song, region = nil)
        song.memo(:frames) { {} }[region&.id] ||= new(song, region && song.directory.region(region.id))
      end

      attr_reader :song, :track, :clip, :region, :reach

      # @param song [Song]
      # @param placed [Directory::Placed, nil] the region with its track
      def initialize(song, placed)
        @song = song
        return unless placed

        @region = placed.region
        @track, @place, @clip = placed.track, placed.place, song.clip(@region.clip_id)
        zero = @region.start_tick - @region.offset_ticks
        @reach = Reach.new(@region.id, @region.clip_id, zero, Timing::LAST_TICK + 1, 0, @region.span_ticks,
                           @region.looped, false,
                           @region.phases)
      end

      # Whether it is that of a region.
      def region? = !@reach.nil?

      # The turn in which what its clip sets for a parameter comes; see {Acting}.
      def turn(address) = own?(address) ? Acting.own_turn(@place) : @place

      # Whether an envelope that a region holds is heard of in this frame.
      def hears?(address, region) = !(region.clip_id == @clip.id && @clip.own_setting?(address))

      private

      def own?(address)
        (address.setting? && @clip.own_setting?(address)) || @song.tracks_of(address).first&.id == @track.id
      end
    end
  end
end
