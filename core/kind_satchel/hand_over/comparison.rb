# frozen_string_literal: true

module KindSatchel
  module HandOver
    # Two states of one song: what is heard of each parameter, the tempo too, how far apart it is, and where most; and
    # what differs in all else that is heard, see {Material}. Equal as heard is every parameter within 1e-9
    # everywhere, and all of the material.
    class Comparison
      # A parameter that differs: `largest` and `mean` in its own unit, `tick` where the largest is; `envelopes` are
      # the moves of the other state that differ, each with its owner, "clip/ID" or "track/ID"; `knob` is where its
      # knob stands there, normalised, nil where it stands alike; `released` is true where only here a hand holds it.
      Row = Struct.new(:address, :largest, :mean, :tick, :envelopes, :knob, :released) do
        # @param song [Song] the one whose names and units are told
        def to_record(song)
          moves = envelopes.map { |owner, envelope| { "owner" => owner, "envelope" => Records.envelope(envelope) } }
          loss = Loss.new(address:, points: nil, largest:, mean:, tick:, why: nil).to_record(song)
          loss.merge("moves" => moves, **(knob ? { "knob" => knob } : {}), **(released ? { "released" => true } : {}))
        end
      end

      # Less than this, as a share of the travel, is none.
      NONE = 1e-9
      # How close the chain that is measured against stays to what is heard, as a share of the travel.
      FINE = 2e-5

      # @param now [Song]
      # @param other [Song]
      def initialize(now, other)
        @now = now
        @other = other
        @finish = [now.length_ticks, other.length_ticks].max
      end

      # @yieldparam share [Float] how far it is, 0..1
      # @return [Array<Row>] of all that differs in what is heard, or in how it is made; what only one of the two has
      #   is left out
      def rows
        list = addresses
        list.each_with_index.filter_map do |address, i|
          yield i.fdiv(list.size) if block_given?
          row(address)
        end
      end

      # What the page and the shell show of it.
      def to_record(&) = { "rows" => rows(&).map { |row| row.to_record(@now) }, "others" => others }

      # @return [Array(Course, Course)] now, and in the other state, as they are drawn
      def courses(address) = [@now, @other].map { |song| Course.of(song, address, 0, @finish + 1) }

      # What differs besides parameters: notes, sounds, regions, devices and their order.
      # @param called [String] what the other state is called
      # @return [Array<String>] in words
      def others(called = "the version") = Material.new(@now, @other, called).words

      private

      def row(address)
        moves, knob, released = moves(address), *knob(address)
        differs = differs?(address)
        return unless differs || moves.any? || knob || released

        Row.new(address, *(differs ? apart(address) : [0.0, 0.0, 0]), moves, knob, released)
      end

      def differs?(address)
        @same ||= Heard::SameInputs.new(@now, @other)
        return false if @same.of?(address)

        Heard::Difference.new(@now, @other, address).then { |found| found.largest > NONE || found.moved_jumps }
      end

      # @return [Array(Float, Float, Integer)] the largest difference, an upper bound, the mean, and where the largest
      #   is
      def apart(address)
        resolvers = [@now, @other].map { |song| Heard::Resolver.new(song, address) }
        pieces = resolvers.map { |one| one.pieces(0, @finish + 1) }
        chain = Heard::Outline.of_pieces(pieces[1], tolerance: FINE)
        lines = Course.new(ticks: chain.each_slice(2).map(&:first), values: chain.each_slice(2).map(&:last),
                           scale: resolvers[1].scale)
        exact = pieces[1].all? { |piece| piece.scale.steps || piece.still? || piece.straight? }
        meter = Meter.new(resolvers[0].scale, lines, room: exact ? 0.0 : FINE).over(pieces[0])
        [meter.largest, meter.mean, meter.tick]
      end

      # Where the knob stands in the other state, if not as here; and whether only here a hand holds it.
      def knob(address)
        now, other = [@now, @other].map { |song| [song.held_value(address), song.knob(address)] }
        return [nil, true] if now[0] && !other[0]

        [now == other ? nil : other.compact.first, false]
      end

      def addresses
        moved = [@now, @other].flat_map do |song|
          song.automated | song.sounded | [Address.tempo]
        end.uniq.reject { |one| one.setting? && !both?(one) }
        turned = @now.tracks.flat_map { |track| turned(track) }
        (moved | turned).select { |address| both?(address) }
      end

      def both?(address) = @now.parameter?(address) && @other.parameter?(address)

      # Knobs that rest elsewhere.
      def turned(track)
        old = @other.directory.tracks[track.id] or return []
        return [] if old.devices == track.devices

        @now.parameters_of(track).map(&:first).select { |address| both?(address) && knob(address).any? }
      end

      def moves(address)
        @other.directory.envelopes.each_value.select { |home| home.envelope.target == address }.filter_map do |home|
          now = @now.directory.envelopes[home.envelope.id]
          next if now && now.envelope == home.envelope && now.owner.id == home.owner.id

          owner = "#{home.clip ? 'clip' : 'track'}/#{home.owner.id}"
          if home.clip ? @now.clips.key?(home.owner.id) : @now.directory.tracks.key?(home.owner.id)
            [owner,
             home.envelope]
          end
        end
      end
    end
  end
end
