# frozen_string_literal: true

module KindSatchel
  module Heard
    # What is worked out once in a frame of a song, kept with it: the values of settings and macros, the moves whose
    # settings are moved, and the integrals of moved rates.
    #
    # Values of other parameters are asked for by {Evaluation#signal}: whoever stands above says how they are made
    # (`Evaluation.signals`), so nothing here knows how a parameter is resolved. A signal answers:
    #
    # - `at(tick)` the value, normalised, as heard
    # - `pieces(from, to)` the {Piece}s of a stretch
    # - `between(from, to)` two values that it stays between
    # - `acting` who acts, an {Acting}, and `idle?` whether nobody ever does
    class Evaluation
      class << self
        # What makes a signal: called with a song, an address and a frame (nil for the song).
        # @return [#call]
        attr_accessor :signals

        # @param region [Region, nil] of the song; nil for the frame of the song
        # @return [Evaluation]
        def of(song, region = nil) = song.memo(:evaluations) { {} }[region&.id] ||= new(Frame.of(song, region))

        # Takes over from a song the integrals of moved rates that come to the same in the next one: as far as they
        # are worked out, they need not be worked out again.
        def carry(before, after)
          kept = before.memo(:evaluations) { {} }.reject { |_, one| one.integrals.empty? }
          return if kept.empty? || before.equal?(after)

          same = SameInputs.new(before, after)
          kept.each do |id, one|
            region = after.directory.regions[id]&.region if id
            of(after, region).take_over(one, same) if id.nil? || region == before.directory.region(id).region
          end
        end
      end

      attr_reader :frame, :integrals

      # @param frame [Frame]
      def initialize(frame)
        @frame = frame
        @signals, @moves, @integrals = {}, {}, {}
      end

      # @return [Song]
      def song = @frame.song

      # @param address [Address]
      # @return [#at, #pieces, #between] the values of a parameter in this frame
      def signal(address) = @signals[address] ||= Evaluation.signals.call(song, address, address.song? ? nil : @frame)

      # @return [LiveMove] an envelope with its settings as they are here
      def move(envelope) = @moves[envelope] ||= LiveMove.new(self, envelope)

      # The integral of the moved rate of an LFO here.
      # @yieldreturn [Integral] where there is none yet
      def integral(envelope) = @integrals[envelope.id] ||= yield

      # @param other [Evaluation] of the song before
      # @param same [SameInputs] of both
      def take_over(other, same)
        other.integrals.each do |id, integral|
          if !@integrals.key?(id) && kept?(other, id, same) && same.of?(Address.setting(id, "rate"))
            @integrals[id] ||= integral
          end
        end
      end

      private

      # Whether an envelope is there as it was, as far as its rate goes, and what goes by the clock has the same clock.
      def kept?(other, id, same)
        one, mine = [other.song, song].map { |each| each.directory.envelopes[id]&.envelope }
        return false unless one && mine && one.lfo? && mine.lfo? && one.source.free? == mine.source.free?

        !mine.source.free? || same.of?(Address.tempo)
      end
    end
  end
end
