# frozen_string_literal: true

module KindSatchel
  module Upgrade
    # Envelope records of one place of which two have one parameter and role.
    module OneRole
      module_function

      # @param records [Array<Hash>] in order
      # @return [Array<Hash>] merged where their clocks are alike, else the further ones switched off
      def merged(records)
        on = records.select { |record| record["on"] }.group_by { |record| record.values_at("target", "role") }
        on.each_value.select { |list| list.size > 1 }.reduce(records) { |all, list| without_double(all, list) }
      end

      # Of what sets, the last one was heard.
      def without_double(records, list)
        return off(records, list[0..-2]) if list.first["role"] == "set"

        first, *more = list
        alike, other = more.partition do |record|
          record["clock"] == first["clock"] && record["own_length_ticks"] == first["own_length_ticks"]
        end
        whole = alike.reduce(first) { |one, two| both(one, two) }
        kept = records.reject { |record| alike.any? { |one| one.equal?(record) } }
        off(kept.map { |record| record.equal?(first) ? whole : record }, other)
      end

      def off(records, list)
        records.map { |record| list.any? { |one| one.equal?(record) } ? record.merge("on" => false) : record }
      end

      def both(one, two)
        first, second = [one, two].map { |record| Records.read_envelope(record) }
        return one.merge("on" => true) if second.points.empty?
        return one.except("limits").merge(two.slice("limits", "points")) if first.points.empty?

        to = [first, second].map { |envelope| envelope.points.last.tick }.max
        points = Blend.points(first.role, *[first, second].map do |envelope|
          Splice.between(envelope.full_points, 0, [to, 1].max)
        end, 0, [to, 1].max)
        one.except("limits").merge("points" => points.map { |point| Records.point(point) })
      end
      private_class_method :without_double, :off, :both
    end
  end
end
