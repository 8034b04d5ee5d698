# frozen_string_literal: true

module KindSatchel
  # A note of a clip: ticks into the clip, MIDI note number 0..127, velocity 1..127.
  class Note < Value.of(:tick, :length_ticks, :pitch, :velocity)
    def check
      return if sound?

      whole!("/tick", tick)
      whole!("/length_ticks", length_ticks, 1)
      number!("/pitch", pitch, 0..127)
      number!("/velocity", velocity, 1..127)
    end

    private

    # At a glance, as nearly all are; what is not is looked at closely.
    def sound?
      [tick, length_ticks, pitch,
       velocity].all?(Integer) && tick.between?(0, LARGEST) && length_ticks.between?(1, LARGEST) &&
        pitch.between?(0, 127) && velocity.between?(1, 127)
    end
  end

  # A recorded loop inside a clip: the id of its sound, the tempo at which it was recorded in BPM, and from which
  # second of it the clip begins. When the song is faster or slower it is as high as it is fast; `stretched`, its
  # pitch is kept. `backwards`, what the clip takes of the sound runs from its end to its start.
  class Audio < Value.of(:sound, :bpm, :start_seconds, :stretched, :backwards)
    # The longest sound, in seconds.
    LONGEST_SECONDS = 20 * 60

    def initialize(start_seconds: 0.0, stretched: false, backwards: false, **fields) = super

    def check
      number!("/bpm", bpm, Timing::TempoPoint::RANGE)
      number!("/start_seconds", start_seconds, 0..LONGEST_SECONDS)
    end

    # @param ticks [Numeric] a length of material
    # @return [Float] how many seconds of the sound that is
    def seconds(ticks) = ticks * 60.0 / Timing::PPQ / bpm

    # @param ticks [Numeric] a place in the material
    # @param length_ticks [Integer] of all of the material
    # @return [Float] the second of the sound that is heard there
    def place(ticks, length_ticks) = start_seconds + seconds(backwards ? length_ticks - ticks : ticks)

    # What a part of the material is by itself.
    # @return [Audio]
    def cut(from, to, length_ticks)
      with(start_seconds: backwards ? start_seconds + seconds(length_ticks - to) : start_seconds + seconds(from))
    end
  end
end
