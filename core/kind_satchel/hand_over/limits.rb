# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What the program on the other side can do. `lanes_only`: it has automation of tracks, not of clips;
    # `no_carriers`: no clips that hold nothing but moves; `set_only`: no moves that scale or shift; `straight`: no
    # curves, cycles or LFOs; `one_tempo`: one tempo from start to end. `points_per_lane` and `points_per_second` are
    # the most it takes, `bits` (7 or 14) how fine its values are; nil for no such limit. `track_ids` are the tracks
    # whose moves go along, nil for all. `tolerance` is how far straight lines may stray, as a share of the travel,
    # where none of the other limits asks for more.
    class Limits < Value.of(:lanes_only, :no_carriers, :set_only, :straight, :one_tempo, :points_per_lane,
                            :points_per_second, :bits, :track_ids,
                            :tolerance)
      FLAGS = %i[lanes_only no_carriers set_only straight one_tempo].freeze
      BITS = [7, 14].freeze
      TOLERANCES = (0.0001..0.2)

      def initialize(lanes_only: false, no_carriers: false, set_only: false, straight: false, one_tempo: false,
                     points_per_lane: nil,
                     points_per_second: nil, bits: nil, track_ids: nil, tolerance: 0.001)
        super
      end

      # @param record [Hash] plain data, as {#to_record} gives it
      # @raise [InvalidInput]
      def self.read(record) = new(**record.slice(*members.map(&:to_s)).transform_keys(&:to_sym).compact)

      def check
        whole!("/points_per_lane", points_per_lane, 2) if points_per_lane
        number!("/points_per_second", points_per_second, 0.1..1000) if points_per_second
        number!("/tolerance", tolerance, TOLERANCES)
        fault!("out_of_range", "/bits", "Values have 7 or 14 bits.") unless bits.nil? || BITS.include?(bits)
        fault!("no_tracks", "/track_ids", "Choose a track whose moves go along.") if track_ids && track_ids.empty?
      end

      # @return [Hash] plain data, without what is not limited
      def to_record = to_h.compact.transform_keys(&:to_s)

      # @return [Integer, nil] the largest whole number a value is written as
      def largest = bits && ((1 << bits) - 1)

      # A value as the other side keeps it.
      # @param value [Float] 0..1
      def rounded(value) = largest ? (value * largest).round / largest.to_f : value

      # Whether there is room for an envelope as it is.
      # @param home [Directory::Home]
      # @param seconds [#call] of a tick of the song
      def fits?(home, seconds)
        envelope = home.envelope
        allowed?(home.clip) && kept?(envelope) && few?(envelope) && exact?(envelope) && apart?(envelope, seconds)
      end

      private

      # Whether a move may stand where it is.
      def allowed?(clip) = clip.nil? || !(lanes_only || (no_carriers && clip.carrier?))

      # Whether its role and its shapes are among those that are kept.
      def kept?(envelope)
        return false if set_only && envelope.role != "set"

        !straight || (!envelope.lfo? && envelope.plain? && envelope.points.none? { |point| curved?(point.shape) })
      end

      def curved?(shape) = !(shape.is_a?(Shapes::Hold) || shape.is_a?(Shapes::Straight))
      def few?(envelope) = points_per_lane.nil? || envelope.points.size <= points_per_lane

      def exact?(envelope)
        bits.nil? || envelope.points.all? { |point| (rounded(point.value) - point.value).abs < 1e-9 }
      end

      def apart?(envelope, seconds)
        return true unless points_per_second

        envelope.points.each_cons(2).all? do |one, other|
          seconds.call(other.tick) - seconds.call(one.tick) >= (1.0 / points_per_second) - 1e-6
        end
      end
    end
  end
end
