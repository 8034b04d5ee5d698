# frozen_string_literal: true

module KindSatchel
  module Checks
    # Plays what an edit made before it is kept: every move that changed as far as it is heard, what is heard where it
    # may sound otherwise, as ramps, the notes and sounds there, and its loose ends. A song that could not be played
    # is refused while the one before it still stands.
    #
    # Of an edit that changes a great deal the moves are all tried, and of the rest a share: what can go wrong in a
    # move goes wrong there.
    module Trial
      # So many parameters, and so many stretches of each.
      MOST_PARAMETERS = 24
      MOST_STRETCHES = 6
      # No further than this, of all stretches of one parameter, in ticks; a part of it where that takes about this
      # long; nothing of it where that part alone takes far too long.
      MOST_TICKS = Timing::PPQ * 64
      MOST_MS = 80.0
      CROWDED_TICKS = Timing::PPQ * 4
      FAR_MS = 1000.0
      MOST_EVENTS_TICKS = Timing::PPQ * 16

      module_function

      # @param before [Song]
      # @param after [Song]
      # @param keys [Array<Array(String, String)>] of the parts that differ, see {Parts}
      # @raise [InvalidInput] for what cannot be played
      def check!(before, after, keys)
        Heard::Evaluation.carry(before, after)
        ids = keys.group_by(&:first).transform_values { |list| list.map(&:last) }
        ids.fetch("envelope", []).filter_map { |id| after.directory.envelopes[id] }.each { |home| move(after, home) }
        changes = Heard::Changes.between(before, after)
        LooseEnds::Limits.carry(before, after, changes.addresses)
        heard = changes.heard.select { |address, _| after.parameter?(address) }
        heard.first(MOST_PARAMETERS).each { |address, list| ramps(after, address, list) }
        regions(after, ids).each { |region| events(after, region) }
        ends(before, after)
      rescue InvalidInput => e
        raise InvalidInput.of("cannot_be_played", "", "What comes of it could not be played: #{e.faults.first.message}")
      end

      def move(song, home)
        return unless home.envelope.acts?

        extent = [Clocks.extent(song, home), MOST_TICKS].min
        home.envelope.each_segment(Clocks::Run.new(0, 0, extent)) { |_, segment| segment.at(segment.start) }
      end

      def ramps(song, address, stretches)
        ramps, effort, left = Heard::Ramps.new(Heard::Resolver.new(song, address)), Heard::Effort.new(song), MOST_TICKS
        stretches.first(MOST_STRETCHES).each do |from, to|
          from, to = [from, 0].max, [to, song.length_ticks, from + left].min
          to = [to, from + CROWDED_TICKS].min if effort.of(address, from, to) > MOST_MS
          ramps.flat(from, to) if to > from && effort.of(address, from, to) < FAR_MS
          left -= [to - from, 0].max
        end
      end

      # What could not be told of the song before is not the edit's fault; it may be what mends it.
      def ends(before, after)
        LooseEnds.of(after)
      rescue InvalidInput
        begin
          LooseEnds.of(before)
        rescue InvalidInput
          return
        end
        raise
      end

      # Those that changed, or whose clip did.
      def regions(song, ids)
        own = ids.fetch("region", []).filter_map { |id| song.directory.regions[id] }
        clips = ids.fetch("clip", []).flat_map { |id| song.directory.regions_of_clip(id) }
        (own + clips).map(&:region).uniq(&:id).first(MOST_STRETCHES)
      end

      def events(song, region)
        Heard::Events.new(song).in_range(region.start_tick,
                                         [region.end_tick, region.start_tick + MOST_EVENTS_TICKS].min)
      end
      private_class_method :move, :ramps, :ends, :regions, :events
    end
  end
end
