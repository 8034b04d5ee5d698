# frozen_string_literal: true

module KindSatchel
  module Sources
    # Points and the shapes between them.
    class Drawn
      def self.of(_record) = PLAIN

      def drawn? = true
      def settings = {}
      def check_with(_envelope) = nil
      def acts?(envelope) = !envelope.points.empty?

      # Full limits and full depth are left out, so that nothing changes by a bit.
      def line(envelope)
        (Limits.line(envelope, *Roles.full(envelope.role)) unless envelope.full_limits? && envelope.depth == 1)
      end

      def at(envelope, position) = envelope.segment_at(position)&.at(position)

      def each_segment(envelope, run)
        envelope.segment_from(run.position(run.from)) do |segment|
          break if run.tick(segment.start) >= run.to

          yield run, segment
        end
      end

      # The points tell.
      def swing(_envelope) = nil
      def points(envelope, from, to) = Splice.between(envelope.full_points, from, to)

      PLAIN = new.freeze
    end
  end
end
