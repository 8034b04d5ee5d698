# frozen_string_literal: true

module KindSatchel
  module Heard
    # One segment of one envelope at work in song time: active for from <= tick < to.
    # `order` sorts what is active at once: layer, then role, then place within the layer.
    Span = Struct.new(:from, :to, :segment, :rules, :order, :source)

    # Who owns a span: the envelope, and the region it sounds in (nil for a lane).
    Source = Struct.new(:kind, :envelope, :region, :clip)

    # Everything that acts on one parameter of a song, placed in song time.
    #
    # The lane comes first, then the region on the parameter's own track, then regions elsewhere from the top
    # track down; within each, set before scale before shift.
    class Layers
      LANE = 0
      OWN_REGION = 1
      OTHER_REGIONS = 2

      # @param song [Song]
      # @param address [Address]
      # @param only [Array<String>, nil] ids of the regions that count; nil for all
      def initialize(song, address, only: nil)
        @song = song
        @address = address
        @only = only&.to_h { |id| [id, true] }
      end

      # @return [Array<Span>] sorted by `from`, cut to the range
      def spans(from, to)
        return [] if @song.held?(@address)

        list = []
        lanes.each_with_index { |lane, i| add_lane(list, lane, i, from, to) }
        carriers.each { |clip, envelope, i| add_clip(list, clip, envelope, i, from, to) }
        list.sort_by!(&:from)
      end

      # Every place of a clip envelope that sets this parameter, with its turn among what acts.
      # @return [Array<Array(Integer, Source)>]
      def setters
        carriers.select { |_, envelope,| envelope.role == "set" }.flat_map do |clip, envelope, i|
          placed = @song.directory.regions_of_clip(clip.id).reject { |one| one.region.muted }
          placed.map { |one| [turn(one, envelope, i), source(one, clip, envelope)] }
        end
      end

      # @return [Array<Envelope>]
      def lanes = @song.track(@address.track_id).lanes.select { |lane| lane.target == @address && lane.acts? }

      # Every run of every region in which a clip envelope moves this parameter.
      # @yieldparam placed [Directory::Placed]
      # @yieldparam window [Array(Integer, Integer, Numeric)] from, to, position at from; song ticks
      # @yieldparam rate [Numeric] envelope ticks per song tick
      def self.windows(placed, clip, envelope, from, to)
        region = placed.region
        return if region.muted || region.end_tick <= from || region.start_tick >= to

        Clocks::ALL.fetch(envelope.clock).runs(region, clip, envelope).each do |run|
          window = region.window(run)
          yield window, run.rate if window && window[1] > from && window[0] < to
        end
      end

      private

      def carriers
        @song.directory.carriers(@address).each_with_index.filter_map do |(clip, envelope), i|
          [clip, envelope, i] if envelope.acts?
        end
      end

      def add_lane(list, lane, place, from, to)
        order = order_of(LANE, 0, lane, place)
        add(list, lane, [from, to, from], 1, order, Source.new("lane", lane))
      end

      def add_clip(list, clip, envelope, index, from, to)
        @song.directory.regions_of_clip(clip.id).each do |placed|
          next if @only && !@only.key?(placed.region.id)

          order = turn(placed, envelope, index)
          source = source(placed, clip, envelope)
          Layers.windows(placed, clip, envelope, from, to) do |window, rate|
            add(list, envelope, narrowed(window, rate, from, to), rate, order, source)
          end
        end
      end

      def own?(placed) = placed.track.id == @address.track_id
      def turn(placed, envelope, index) = order_of(own?(placed) ? OWN_REGION : OTHER_REGIONS, placed.place, envelope, index)
      def source(placed, clip, envelope) = Source.new(own?(placed) ? "clip" : "carrier", envelope, placed.region, clip)

      def order_of(layer, track_place, envelope, index)
        (((layer * 100_000) + (layer == OTHER_REGIONS ? track_place : 0)) * 4_000_000) + (envelope.role_rules.rank * 1_000_000) + index
      end

      def narrowed((start, finish, position), rate, from, to)
        late = [from - start, 0].max
        [start + late, [finish, to].min, position + (late * rate)]
      end

      def add(list, envelope, (start, finish, position), rate, order, source)
        zero = position.zero? ? start : start - (rate == 1 ? position : position / rate)
        rules = envelope.trims? ? Roles::Trim.new(@song.parameter(@address).default) : envelope.role_rules
        envelope.segment_from(position) do |segment|
          placed = segment.placed(zero, rate)
          break if placed.start >= finish

          list << Span.new([placed.start, start].max, [placed.finish, finish].min, placed, rules, order, source)
        end
      end
    end
  end
end
