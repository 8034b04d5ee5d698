# frozen_string_literal: true

module KindSatchel
  # A corner of an envelope: its tick, its normalised value and the shape of the segment that leaves it.
  # Two points on one tick are a jump.
  class Point < Value.of(:tick, :value, :shape)
    def check
      whole!("/tick", tick)
      number!("/value", value, -1..1)
    end
  end
end
