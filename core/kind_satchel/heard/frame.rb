# frozen_string_literal: true

module KindSatchel
  module Heard
    # In what the settings of moves are resolved: the song, for those of a lane; one region, for those of its clip's moves.
    #
    # In the frame of a region the envelopes of its clip act at the region's positions over the whole run, also where the region does not
    # sound, on whatever they move on the way. The region stands for its whole track there, and another region of the same clip never acts
    # on the settings. Lanes and what lies on other tracks act at song ticks; before tick 0 they are taken at tick 0.
    class Frame
      # The region as if it began at the start of its run and never ended.
      Reach = Struct.new(:id, :clip_id, :start_tick, :end_tick, :offset_ticks, :span_ticks, :looped, :muted, :phases)

      # One for each region of a song, kept with it.
      # @param region [Region, nil] of the song; nil for the frame of the song
      def self.of(song, region = nil) = song.memo(:frames) { {} }[region&.id] ||= new(song, region && song.directory.region(region.id))

      # Takes over from a song the integrals of moved rates that come to the same in the next one: as far as they are worked out, they need
      # not be worked out again.
      def self.carry(before, after)
        frames = before.memo(:frames) { {} }.reject { |_, frame| frame.integrals.empty? }
        return if frames.empty? || before.equal?(after)

        same = SameInputs.new(before, after)
        frames.each do |id, frame|
          region = after.directory.regions[id]&.region if id
          of(after, region).take_over(frame, same) if id.nil? || region == before.directory.region(id).region
        end
      end

      attr_reader :song, :track, :clip, :reach, :integrals

      # @param placed [Directory::Placed, nil]
      def initialize(song, placed)
        @song = song
        @resolvers, @moves, @integrals = {}, {}, {}
        return unless placed

        region = placed.region
        @track, @place, @clip = placed.track, placed.place, song.clip(region.clip_id)
        zero = region.start_tick - region.offset_ticks
        @reach = Reach.new(region.id, region.clip_id, zero, Timing::LAST_TICK + 1, 0, region.span_ticks, region.looped, false, region.phases)
      end

      def region? = !@reach.nil?

      # @return [Resolver] of a parameter, in this frame
      def resolver(address) = @resolvers[address] ||= Resolver.new(@song, address, frame: address.song? ? nil : self)

      # @return [LiveMove] an envelope with its settings as they are here
      def move(envelope) = @moves[envelope] ||= LiveMove.new(self, envelope)

      # The integral of the moved rate of an LFO here.
      # @yieldreturn [Integral] where there is none yet
      def integral(envelope) = @integrals[envelope.id] ||= yield

      # @param other [Frame] of the song before
      # @param same [SameInputs] of both
      def take_over(other, same)
        other.integrals.each do |id, integral|
          @integrals[id] ||= integral if !@integrals.key?(id) && kept?(other, id, same) && same.of?(Address.setting(id, "rate"))
        end
      end

      # The turn in which what its clip sets for a parameter comes; see {Acting}.
      def turn(address) = own?(address) ? Acting.own_turn(@place) : @place

      # Whether an envelope that a region holds is heard of in this frame.
      def hears?(address, region) = !(region.clip_id == @clip.id && @clip.own_setting?(address))

      private

      # Whether an envelope is there as it was, as far as its rate goes, and what goes by the clock has the same clock.
      def kept?(other, id, same)
        one, mine = [other.song, @song].map { |song| song.directory.envelopes[id]&.envelope }
        return false unless one && mine && one.lfo? && mine.lfo? && one.source.free? == mine.source.free?

        !mine.source.free? || same.of?(Address.tempo)
      end

      def own?(address) = (address.setting? && @clip.own_setting?(address)) || @song.tracks_of(address).first&.id == @track.id
    end
  end
end
