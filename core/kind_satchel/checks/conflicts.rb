# frozen_string_literal: true

module KindSatchel
  module Checks
    # Places where two clip envelopes set one parameter at once: only the later one is heard. A lane under a clip
    # envelope is no conflict; a clip is meant to overrule it.
    module Conflicts
      # From `from` up to `to` (song ticks) the winner overrules the loser; both are {Heard::Source}s.
      Conflict = Struct.new(:from, :to, :winner, :loser)

      module_function

      # @example
      #   Conflicts.of(song, Address.parse("rope-bass/synth/cutoff")) #=> []
      # @param song [Song]
      # @param address [Address]
      # @return [Array<Conflict>] by start
      def of(song, address)
        setters = setters(song, address)
        return [] if setters.map { |_, source| source.envelope.id }.uniq.size < 2

        found = setters.each_with_index.flat_map do |one, i|
          overlapping(setters, i).map { |other| between(one, other) }
        end
        found.sort_by(&:from)
      end

      # Those after one that begin before it ends.
      def overlapping(setters, place)
        last = place + 1
        last += 1 while last < setters.size && starts_within?(setters[place], setters[last])
        setters[(place + 1)...last]
      end

      # Regions in which something sets the parameter, by start; each with its turn.
      def setters(song, address)
        list = []
        Heard::Acting.new(song, address).each_placed(0, Timing::LAST_TICK) do |source|
          list << [source.turn, source] if source.envelope.role == "set"
        end
        list.sort_by { |_, source| source.region.start_tick }
      end

      def starts_within?((_, source), (_, other)) = other.region.start_tick < source.region.end_tick

      def between((turn, one), (other_turn, other))
        winner, loser = other_turn >= turn ? [other, one] : [one, other]
        Conflict.new(other.region.start_tick, [one.region.end_tick, other.region.end_tick].min, winner, loser)
      end
      private_class_method :setters, :overlapping, :starts_within?, :between
    end
  end
end
