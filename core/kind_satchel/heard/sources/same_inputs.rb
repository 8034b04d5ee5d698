# frozen_string_literal: true

module KindSatchel
  module Heard
    # Whether all that makes a parameter what it is stands alike in two songs: its knob or the hand on it, what drives
    # it, its lanes, the moves of clips and where these lie, and so on for every setting that is moved. Then it is
    # heard alike, and need not be looked at.
    class SameInputs
      # @param one [Song]
      # @param other [Song]
      def initialize(one, other)
        @songs = [one, other]
        @known = {}
      end

      # @param address [Address] that both songs have
      # @return [Boolean] false where that is not certain
      def of?(address)
        @known.fetch(address) do
          # What comes round to itself while it is looked at adds nothing.
          @known[address] = true
          @known[address] = alike?(address)
        end
      end

      private

      def alike?(address)
        return false unless @songs.all? { |song| song.parameter?(address) } && both do |song|
          [song.held_value(address), song.knob(address)]
        end

        drivers = @songs.map { |song| song.directory.driver(address) }
        return false unless drivers.uniq.size == 1 && (drivers[0].nil? || of?(drivers[0].macro))

        envelopes(address) { |song| song.lanes_of(address) } && clips(address)
      end

      def both(&block) = @songs.map(&block).then { |one, two| one == two }

      def clips(address)
        movers = @songs.map { |song| song.directory.movers(address) }
        return false unless movers.map { |list| list.map { |clip, _| clip.id } }.uniq.size == 1
        return false unless envelopes(address) { |song| song.directory.movers(address).map(&:last) }

        placed(movers[0].map { |clip, _| clip.id }.uniq) && both { |song| song.tracks_of(address).map(&:id) }
      end

      # Where clips lie, and how long they are.
      def placed(ids)
        ids.all? do |id|
          both do |song|
            [song.clips[id].length_ticks, song.directory.regions_of_clip(id).map do |one|
              [one.region, one.track.id, one.place]
            end]
          end
        end
      end

      # @yieldreturn [Array<Envelope>] what acts on it in a song
      def envelopes(_address, &)
        return false unless both(&)

        yield(@songs[0]).all? { |envelope| settings?(envelope) }
      end

      def settings?(envelope)
        moved = @songs.map { |song| song.directory.moved_settings.fetch(envelope.id, []) }
        return false unless moved[0].sort == moved[1].sort
        return false if envelope.lfo? && envelope.source.free? && !of?(Address.tempo)

        moved[0].all? { |name| of?(Address.setting(envelope.id, name)) } && (moved[0].empty? || home?(envelope))
      end

      # Settings are taken in the frame of the regions of their clip: those must lie alike, and what else their clip
      # does there.
      def home?(envelope)
        homes = @songs.map { |song| song.directory.envelopes[envelope.id] }
        return false unless homes.all? && homes.map { |home| [home.clip&.id, home.track&.id] }.uniq.size == 1

        homes[0].clip.nil? || (both { |song| song.clips[homes[0].clip.id].envelopes } && placed([homes[0].clip.id]))
      end
    end
  end
end
