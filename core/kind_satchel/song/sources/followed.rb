# frozen_string_literal: true

require "digest"

module KindSatchel
  module Sources
    # Points that the core made from how loud something is, kept with what they were made from, so that they can be
    # made again otherwise. Once the points are edited by hand they are points like any others.
    #
    # `of` says what is followed: `{"clip_id"}` of audio or notes, `{"track_id"}`, or `{"sound"}` of the store, from
    # `tick` on. Of notes only those of `pitches` open it, nil for all. `attack_ms` and `release_ms` are the time
    # constants of a one-pole follower, in which it comes 63.2 % of the way; `floor_db` is what counts as nothing,
    # under the loudest; `smooth_ms` the width of a running mean; `over` turns it over; `tolerance` is what its points
    # may stray, as a share. `made` tells the points it made, `sounded` what they were made from as it sounded then
    # (nil where that is not known).
    class Followed < Value.of(:of, :pitches, :tick, :attack_ms, :release_ms, :floor_db, :smooth_ms, :over, :tolerance,
                              :made, :sounded)
      KINDS = %w[clip_id track_id sound].freeze
      ATTACK = (0..2000)
      RELEASE = (0..5000)
      FLOOR = (-80..-6)
      SMOOTH = (0..1000)
      TOLERANCE = (0.001..0.1)
      PLAIN = { pitches: nil, tick: 0, attack_ms: 5, release_ms: 150, floor_db: -36, smooth_ms: 0, over: false,
                tolerance: 0.01, made: nil,
                sounded: nil }.freeze

      def self.of(record) = new(**PLAIN, **record.except("kind").transform_keys(&:to_sym))

      # What tells points from others, wherever they begin.
      # @param from [Integer] the tick from which they are counted
      # @return [String]
      def self.digest(points, from = points.first&.tick || 0)
        points = points.map { |point| point.with(tick: point.tick - from) } unless from.zero?
        Digest::SHA256.hexdigest(points.map do |point|
          [point.tick, point.value, *Shapes.record(point.shape).values].join(" ")
        end.join("\n"))[0, 16]
      end

      def check
        fine = of.is_a?(Hash) && of.size == 1 && KINDS.include?(of.keys[0]) && of.values[0].is_a?(String)
        fault!("bad_source", "/of", "What is followed is a clip, a track or a sound.") unless fine
        number!("/attack_ms", attack_ms, ATTACK)
        number!("/release_ms", release_ms, RELEASE)
        number!("/floor_db", floor_db, FLOOR)
        number!("/smooth_ms", smooth_ms, SMOOTH)
        number!("/tolerance", tolerance, TOLERANCE)
        whole!("/tick", tick)
        pitches&.each_with_index { |pitch, i| number!("/pitches/#{i}", pitch, 0..127) }
        of.freeze
      end

      # Whether the points are the ones it made, also where they were moved. Older versions counted them from tick 0.
      def made?(points) = made == Followed.digest(points) || made == Followed.digest(points, 0)

      # Only what is not as it begins.
      def settings = to_h.reject { |name, value| PLAIN.key?(name) && PLAIN[name] == value }.transform_keys(&:to_s)

      # In all else it is drawn.
      %i[drawn? acts? line at each_segment swing points].each do |name|
        define_method(name) { |*given, &block| Drawn::PLAIN.public_send(name, *given, &block) }
      end
      def check_with(_envelope) = nil
    end
  end
end
