# frozen_string_literal: true

module KindSatchel
  # A stretch of song time, and whether playing stays inside it.
  class PlayRange < Value.of(:on, :start_tick, :end_tick)
    def check
      whole!("/start_tick", start_tick)
      whole!("/end_tick", end_tick, 1)
      fault!("out_of_range", "/end_tick", "A range ends after it starts.") unless end_tick > start_tick
    end
  end
end
