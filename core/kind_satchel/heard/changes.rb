# frozen_string_literal: true

require_relative "changes/devices_changed"
require_relative "changes/points_changed"
require_relative "changes/tempo_changed"
require_relative "changes/spread"

module KindSatchel
  module Heard
    # Where what is heard may differ from one song to the next: for every parameter the stretches, and from where the
    # clock does. Outside of them heard is equal. Edits share what they did not change, so this looks at what is not
    # the same thing.
    #
    # @example
    #   after = Edits.apply(song, "set_tempo", { "tick" => 0, "bpm" => 100 }).song
    #   changes = Changes.between(song, after)
    #   changes.clock_from #=> 0
    class Changes
      include DevicesChanged

      # To the end of all time.
      ALWAYS = [0, Timing::LAST_TICK + 1].freeze
      # More runs of one envelope in one region than this are told as the region.
      MOST_RUNS = 48

      # @param before [Song]
      # @param after [Song]
      # @return [Changes]
      def self.between(before, after) = new(before, after)

      # By address the stretches [from, to] in song ticks, in order, apart from each other, with a tick to spare on
      # both sides. Addresses that name nothing in the next song are among them.
      # @return [Hash{Address=>Array<Array(Integer, Integer)>}]
      attr_reader :heard

      # @return [Integer, nil] the first tick whose second may differ
      attr_reader :clock_from

      def initialize(before, after)
        @before = before
        @after = after
        @found = Hash.new { |all, address| all[address] = [] }
        look unless before.equal?(after)
        spread
        @heard = @found.transform_values { |list| merged(list) }
        @clock_from = (clock_change if @heard.key?(Address.tempo))
      end

      # @return [Array<Address>]
      def addresses = @heard.keys

      private

      # Lists of tempos tell to the tick.
      def clock_change
        tempos = [@before.tempo, @after.tempo]
        tempos.all?(Timing::TempoMap) ? TempoChanged.from(*tempos) : @heard[Address.tempo].first.first
      end

      def look
        add(Address.tempo, ALWAYS) unless @before.bpm == @after.bpm && @before.held_bpm == @after.held_bpm
        unless @before.tracks.equal?(@after.tracks)
          pairs(@before.directory.tracks, @after.directory.tracks) { |old, new| look_at_tracks(old, new) }
          look_at_order
        end
        return if @before.clips.equal?(@after.clips)

        pairs(@before.clips, @after.clips) { |old, new| look_at_clips(old, new) }
      end

      # On from settings to what hangs on them, until nothing more does.
      def spread
        spreads = [@before, @after].map { |song| Spread.new(song) }
        todo = @found.keys.select { |address| leads_on?(address) }
        until todo.empty?
          address = todo.shift
          spreads.flat_map { |one| one.on(address, merged(@found[address])) }.each do |target, stretches|
            more = stretches - @found[target]
            next if more.empty?

            @found[target].concat(more)
            todo |= [target] if leads_on?(target)
          end
        end
        @found.reject! { |_, list| list.empty? }
      end

      def leads_on?(address)
        address.setting? || address.song? || [@before, @after].any? { |song| song.directory.drives_of(address).any? }
      end

      # Yields old and new of all that is not the same thing.
      def pairs(before, after)
        return if before.equal?(after)

        after.each { |id, new| yield before[id], new unless new.equal?(before[id]) }
        before.each { |id, old| yield old, nil unless after.key?(id) }
      end

      def by_id(list) = list.to_h { |thing| [thing.id, thing] }

      def look_at_tracks(old, new)
        pairs(of(old, :lanes), of(new, :lanes)) { |was, is| look_at_lanes(was, is) }
        pairs(of(old, :regions), of(new, :regions)) do |was, is|
          add_region(@before, old, was) if was
          add_region(@after, new, is) if is
        end
        look_at_devices((new || old).chain_id, of(old, :devices), of(new, :devices))
      end

      # What a track or clip has, by id; nothing of one that is not there.
      def of(owner, what) = owner ? by_id(owner.public_send(what)) : {}

      def look_at_lanes(was, is)
        look_at_settings(was, is)
        return unless was&.acts? || is&.acts?

        add(was.target, ALWAYS) if was && was.target != is&.target
        add(is.target, PointsChanged.between(was, is) || ALWAYS) if is
      end

      # The knobs of a move itself, and the hands on them.
      def look_at_settings(was, is)
        return unless was && is

        names = Settings.names(was) & Settings.names(is)
        names.reject! { |name| Settings.knob(was, name) == Settings.knob(is, name) && was.held[name] == is.held[name] }
        names.each { |name| add(Address.setting(is.id, name), ALWAYS) }
      end

      # All that a region's clip does there.
      def add_region(song, track, region)
        clip = song.clips[region.clip_id]
        return if region.muted || clip.nil?

        clip.envelopes.each do |envelope|
          if envelope.acts? && reaches?(clip, envelope, track)
            add(envelope.target, [region.start_tick, region.end_tick])
          end
        end
      end

      def reaches?(clip, envelope, track) = clip.reaches?(envelope.target, track)

      # Further down the tracks is later: where carriers meet, another one may win.
      def look_at_order
        ids = [@before, @after].map { |song| song.tracks.map(&:id) }
        return if (ids[0] & ids[1]) == (ids[1] & ids[0])

        moved = @after.clips.each_value.select(&:carrier?).flat_map do |clip|
          clip.envelopes.map { |envelope| [envelope.target, clip] }
        end
        moved.group_by(&:first).each { |target, list| look_at_meeting(target, list) }
      end

      def look_at_meeting(target, list)
        placed = list.map(&:last).uniq.flat_map { |clip| @after.directory.regions_of_clip(clip.id) }
        placed.each { |one| add(target, [one.region.start_tick, one.region.end_tick]) } if placed.size > 1
      end

      def look_at_clips(old, new)
        look_at_devices((new || old).chain_id, of(old, :devices), of(new, :devices))
        pairs(of(old, :envelopes), of(new, :envelopes)) { |was, is| look_at_envelopes(old, new, was, is) }
        return if old.nil? || new.nil? || (old.length_ticks == new.length_ticks && old.kind == new.kind)

        [[@before, old], [@after, new]].each do |song, clip|
          each_region(song, clip) { |placed| add_region(song, placed.track, placed.region) }
        end
      end

      def look_at_envelopes(old, new, was, is)
        look_at_settings(was, is)
        same = was && is && was.target == is.target && !Spread.new(@after).rate?(is.target)
        stretch = PointsChanged.between(was, is) if same
        [[@before, old, was], [@after, new, is]].each do |song, clip, envelope|
          each_region(song, clip) { |placed| add_runs(clip, envelope, placed, stretch) } if envelope&.acts?
        end
      end

      def each_region(song, clip, &)
        song.directory.regions_of_clip(clip.id).reject { |placed| placed.region.muted }.each(&)
      end

      # Where in a region a stretch of an envelope sounds; all of it without one.
      def add_runs(clip, envelope, placed, stretch)
        return unless reaches?(clip, envelope, placed.track)

        region = placed.region
        list = stretch && runs(region, clip, envelope, stretch)
        return add(envelope.target, [region.start_tick, region.end_tick]) unless list

        list.each { |part| add(envelope.target, part) }
      end

      # @return [Array, nil] nil where they are too many to be told one by one
      def runs(region, clip, envelope, (from, to))
        pass = Clocks::ALL.fetch(envelope.clock).pass_ticks(region, clip, envelope)
        return if pass && region.pass_count(pass) > MOST_RUNS

        list = []
        Clocks.each_run(region, clip, envelope, region.start_tick, region.end_tick) do |run|
          low, high = [run.tick(from).floor, run.from].max, [run.tick(to).ceil, run.to].min
          list << [low, high] if high > low
        end
        list
      end

      def add(address, stretch) = @found[address] << stretch

      # A tick is left on both sides, so that what jumps at an edge is in it.
      def merged(list)
        list.sort.each_with_object([]) do |(from, to), all|
          from, to = [from - 1, 0].max, [to + 1, ALWAYS[1]].min
          all.any? && from <= all.last[1] ? all.last[1] = [all.last[1], to].max : all << [from, to]
        end
      end
    end
  end
end
