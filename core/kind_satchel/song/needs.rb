# frozen_string_literal: true

module KindSatchel
  # What the value of a parameter needs: its macro, and the settings of every move of it that something is drawn for
  # or that are driven. Told by address, as written: moves that are off, or sound nowhere, count too, so that
  # switching on, unmuting or placing never closes a ring.
  class Needs
    def initialize(song)
      @song = song
      @moved = song.directory.moved_settings
    end

    # @param address [Address]
    # @return [Array<Address>] needed by it directly
    def of(address)
      settings = movers(address).flat_map do |envelope|
        names = @moved.fetch(envelope.id, NONE) & Settings.names(envelope)
        names.map { |name| Address.setting(envelope.id, name) }
      end
      clock = movers(address).any? { |envelope| free?(envelope) } ? [Address.tempo] : NONE
      settings + clock + @song.directory.drivers(address).map(&:macro)
    end
    NONE = [].freeze

    # All that needs something, directly or not, itself not among it.
    # @return [Array<Address>] targets of moves first
    def needing(address)
      list = [address]
      list.each { |one| (above(one) - list).each { |more| list << more } }
      list.drop(1)
    end

    # Parameters that need themselves in the end, one after the other; nil where there are none.
    # @return [Array<Address>, nil] the first once more at the end
    def ring
      done = {}
      (settings + @song.directory.driven + [Address.tempo]).each do |address|
        found = way_back(address, [], done)
        return found if found
      end
      nil
    end

    # @return [String] a sentence for people
    def self.words(song, ring)
      names = ring.map { |address| song.full_name(address) }
      return "That would go round in a ring: #{names[0]} needs itself." if names.size == 2

      "That would go round in a ring: #{names[0]} needs #{names.drop(1).join(', which needs ')}."
    end

    private

    def settings = @moved.flat_map { |id, names| names.map { |name| Address.setting(id, name) } }

    # What is moved by the move that an address is a setting of, or driven by the macro that it is.
    def above(address)
      if address.song?
        return @song.directory.envelopes.each_value.map(&:envelope).select { |one| free?(one) }.map(&:target).uniq
      end
      return @song.directory.drives_of(address).map(&:target) unless address.setting?

      home = @song.directory.envelopes[address.device_id]
      home && Settings.names(home.envelope).include?(address.parameter_id) ? [home.envelope.target] : NONE
    end

    def free?(envelope) = envelope.lfo? && envelope.source.free?

    def movers(address)
      lanes = @song.parameter?(address) ? @song.lanes_of(address) : NONE
      @song.directory.movers(address).map(&:last) + lanes
    end

    def way_back(address, way, done)
      return [*way.drop_while { |one| one != address }, address] if way.include?(address)
      return if done.key?(address)

      done[address] = true
      of(address).each do |needed|
        found = way_back(needed, [*way, address], done)
        return found if found
      end
      nil
    end
  end
end
