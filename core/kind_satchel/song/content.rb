# frozen_string_literal: true

module KindSatchel
  # A note of a clip: ticks into the clip, MIDI note number 0..127, velocity 1..127.
  class Note < Value.of(:tick, :length_ticks, :pitch, :velocity)
    def check
      whole!("/tick", tick)
      whole!("/length_ticks", length_ticks, 1)
      number!("/pitch", pitch, 0..127)
      number!("/velocity", velocity, 1..127)
    end
  end

  # A recorded loop inside a clip: the id of its sound, the tempo at which it was recorded in BPM, and from which second of it the clip
  # begins.
  class Audio < Value.of(:sound, :bpm, :start_seconds)
    # The longest sound, in seconds.
    LONGEST_SECONDS = 20 * 60

    def initialize(start_seconds: 0.0, **fields) = super

    def check
      number!("/bpm", bpm, Timing::TempoPoint::RANGE)
      number!("/start_seconds", start_seconds, 0..LONGEST_SECONDS)
    end
  end
end
