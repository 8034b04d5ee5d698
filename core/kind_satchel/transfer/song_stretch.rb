# frozen_string_literal: true

module KindSatchel
  module Transfer
    # A stretch of the whole song by itself, from tick 0: `regions` as [track id, {Region}], `lanes` as [role,
    # {Address}, points], `meters` as [tick, {Timing::Meter}], and `markers` as [tick, name].
    class SongStretch < Value.of(:length_ticks, :regions, :lanes, :meters, :markers)
      def initialize(meters: [], markers: [], **fields) = super

      # @raise [InvalidInput] for a stretch without length
      def self.of(song, from, to)
        raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless to > from

        regions = song.tracks.flat_map do |track|
          track.regions_in(from, to).map { |region| [track.id, cut(song, region, from, to)] }
        end
        lanes = song.tracks.flat_map(&:lanes).select { |lane| lane.points.any? && song.parameter?(lane.target) }
        new(length_ticks: to - from, regions:, lanes: lanes.map do |lane|
          [lane.role, lane.target, Splice.between(lane.points, from, to)]
        end,
            meters: song.meters.cut(from, to), markers: markers(song, from, to))
      end

      # Waves of its clip go on as they do here.
      def self.cut(song, region, from, to)
        if region.start_tick - region.offset_ticks < from
          region = region.with(phases: Phases.current(song, region, region.start_tick.clamp(from..), from))
        end
        region = region.split(from, region.id).last if region.start_tick < from
        region = region.split(to, nil).first if region.end_tick > to
        region.with(start_tick: region.start_tick - from)
      end

      def self.markers(song, from, to)
        song.markers.select { |one| one.tick >= from && one.tick < to }.map { |one| [one.tick - from, one.name] }
      end
      private_class_method :cut, :markers

      # @return [Hash] plain data
      def to_record
        { "length_ticks" => length_ticks,
          "regions" => regions.map { |track_id, entry| { "track_id" => track_id, **Records.region(entry) } },
          "lanes" => lanes.map do |role, target, points|
            { "role" => role, "target" => target.to_s, "points" => points.map { |entry| Records.point(entry) } }
          end,
          "meters" => meters.map { |tick, meter| { "tick" => tick, **Records.meter(meter) } },
          **(markers.empty? ? {} : { "markers" => markers.map { |tick, name| { "tick" => tick, "name" => name } } }) }
      end

      # @param record [Hash] data that fits schemas/stretch.json
      # @raise [InvalidInput] with every fault
      def self.read(record)
        regions = Records.each(record["regions"], "/regions") do |entry|
          [entry["track_id"], Records.read_region(entry)]
        end
        lanes = Records.each(record["lanes"], "/lanes") { |entry| read_lane(entry) }
        meters = Records.each(record.fetch("meters", []), "/meters") do |entry|
          [entry["tick"], Records.read_meter(entry)]
        end
        markers = record.fetch("markers", []).map { |entry| entry.values_at("tick", "name") }
        new(length_ticks: record["length_ticks"], regions:, lanes:, meters:, markers:)
      end

      def self.read_lane(entry)
        [entry["role"], Address.parse(entry["target"]), Records.each(entry["points"], "/points") do |point|
          Records.read_point(point)
        end]
      end
      private_class_method :read_lane

      def check
        whole!("/length_ticks", length_ticks, 1)
        regions.each_with_index { |(_, region), i| inside!("/regions/#{i}", region.end_tick) }
        lanes.each_with_index { |(_, _, points), i| inside!("/lanes/#{i}", points.last.tick) unless points.empty? }
        check_meters
        markers.each_with_index { |(tick, _), i| inside!("/markers/#{i}", tick) }
      end

      private

      def check_meters
        return if meters.empty?

        in_order = meters.first[0].zero? && meters.each_cons(2).all? { |one, other| one[0] < other[0] }
        unless in_order
          fault!("unsorted", "/meters",
                 "Time signatures of a stretch stand in order, the first at its start.")
        end
        inside!("/meters", meters.last[0])
      end

      def inside!(path, tick)
        return unless tick > length_ticks

        fault!("out_of_range", path,
               "Tick #{tick} lies beyond the stretch of #{length_ticks} ticks.")
      end
    end
  end
end
