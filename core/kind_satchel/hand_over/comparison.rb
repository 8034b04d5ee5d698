# frozen_string_literal: true

module KindSatchel
  module HandOver
    # Two states of one song, parameter by parameter: what is heard of each, how far apart it is, and where most.
    class Comparison
      # A parameter that differs: `largest` and `mean` in its own unit, `tick` where the largest is; `envelopes` are the moves of the other
      # state that differ, each with its owner, "clip/ID" or "track/ID".
      Row = Struct.new(:address, :largest, :mean, :tick, :envelopes)

      # Less than this, as a share of the travel, is none.
      NONE = 1e-6

      # @param now [Song]
      # @param other [Song]
      def initialize(now, other)
        @now = now
        @other = other
        @finish = [now.length_ticks, other.length_ticks].max
      end

      # @return [Array<Row>] of all that differs in what is heard, or in how it is made; what only one of the two has is left out
      def rows
        addresses.filter_map do |address|
          before, after = courses(address)
          largest, mean, tick = Loss.between(before, after)
          moves = moves(address)
          Row.new(address, largest, mean, tick, moves) if moves.any? || differs?(before, after)
        end
      end

      # @return [Array(Course, Course)] now, and in the other state
      def courses(address) = [@now, @other].map { |song| Course.of(song, address, 0, @finish + 1) }

      # What the other state has on, or in, of this song: tracks, clips and devices by name.
      # @return [Array<String>] in words
      def others
        [["track", @now.tracks, @other.tracks], ["clip", @now.clips.values, @other.clips.values]].flat_map do |word, now, other|
          gone = other.reject { |one| now.any? { |two| two.id == one.id } }.map { |one| "#{word} #{one.name} is only in the version" }
          new = now.reject { |one| other.any? { |two| two.id == one.id } }.map { |one| "#{word} #{one.name} is not in the version" }
          gone + new
        end
      end

      private

      def addresses
        moved = [@now, @other].flat_map { |song| song.automated | song.sounded }.uniq.reject { |one| one.setting? && !both?(one) }
        turned = @now.tracks.flat_map { |track| turned(track) }
        (moved | turned).select { |address| both?(address) }
      end

      def both?(address) = @now.parameter?(address) && @other.parameter?(address)

      # Knobs that rest elsewhere.
      def turned(track)
        old = @other.directory.tracks[track.id] or return []
        return [] if old.devices == track.devices

        @now.parameters_of(track).map(&:first).select { |address| both?(address) && @now.knob(address) != @other.knob(address) }
      end

      def differs?(before, after)
        before.ticks != after.ticks || before.values.zip(after.values).any? { |one, two| (one - two).abs > NONE }
      end

      def moves(address)
        @other.directory.envelopes.each_value.select { |home| home.envelope.target == address }.filter_map do |home|
          now = @now.directory.envelopes[home.envelope.id]
          next if now && now.envelope == home.envelope && now.owner.id == home.owner.id

          owner = "#{home.clip ? 'clip' : 'track'}/#{home.owner.id}"
          [owner, home.envelope] if home.clip ? @now.clips.key?(home.owner.id) : @now.directory.tracks.key?(home.owner.id)
        end
      end
    end
  end
end
