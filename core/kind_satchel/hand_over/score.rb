# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What goes into a MIDI file: a stretch of a song as parts of notes and controllers, in ticks from the start of
    # the stretch.
    class Score
      # `notes` as [tick, length, pitch, velocity]; `lead` what is said first, as [number, value]; `texts` what each
      # controller moves, in words; `controls` as {Control}s; `within` how far each parameter's lie from what is
      # heard, by address, as shares of their travel.
      Part = Struct.new(:name, :channel, :notes, :lead, :texts, :controls, :within)
      # Events of one controller: its `number`, "bend" for pitch bend; `ticks` in order and `amounts` in step, 0..127,
      # of pitch bend 0..16383.
      Control = Struct.new(:number, :ticks, :amounts)

      DRUMS = 10

      # What a MIDI file can be asked for. `error` is a share of a controller's travel, `per_second` the most events a
      # second of one controller (nil for any number).
      Ways = Struct.new(:rows, :error, :per_second, :track_ids)

      # @param song [Song]
      # @param ways [Ways]
      # @param from [Integer] first song tick
      # @param to [Integer] the tick after the last
      def initialize(song, ways, from: 0, to: song.length_ticks)
        @song = song
        @ways = ways
        @from = from
        @to = to
      end

      # @return [String]
      def name = @song.name

      # @return [Integer] ticks to a quarter note
      def ppq = Timing::PPQ

      # @return [Integer]
      def length_ticks = @to - @from

      # @return [Array<Array(Integer, Integer)>] tick, microseconds a quarter note
      def tempo = SteppedTempo.of(@song.tempo, @from, @to)

      # @return [Array<Array(Integer, Integer, Integer)>] tick, beats, unit
      def meters
        sections = @song.meters.sections
        first = sections.reverse.find { |one| one.tick <= @from }
        [[0, first.meter.beats, first.meter.unit],
         *sections.select do |one|
           one.tick > @from && one.tick < @to
         end.map { |one| [one.tick - @from, one.meter.beats, one.meter.unit] }]
      end

      # @return [Array<Array(Integer, String)>]
      def markers
        @song.markers.select { |one| one.tick >= @from && one.tick < @to }.map { |one| [one.tick - @from, one.name] }
      end

      # One for each track that has notes or controllers.
      # @param map [#call] does the work on each of a list; gives what came of it, in order
      # @yield [part] what is made of each where it is worked out, in its place
      # @return [Array<Part>]
      def parts(map = ->(list, work) { list.map(&work) })
        notes = Heard::Events.new(@song).in_range(@from, @to).select { |event| event["kind"] == "note" }
        events = notes.group_by { |event| event["track_id"] }
        rows = @ways.rows.group_by { |row| Controllers.channel_track(@song, row.address) }
        chosen = @song.tracks.select { |track| (events[track.id] || rows[track.id]) && wanted?(track) }
        map.call(chosen.each_with_index.to_a, lambda { |(track, i)|
          part = part(track, channel(track, i), events.fetch(track.id, []), rows.fetch(track.id, []))
          block_given? ? yield(part) : part
        })
      end

      private

      def wanted?(track) = @ways.track_ids.nil? || @ways.track_ids.include?(track.id)

      def part(track, channel, events, rows)
        moved = rows.map { |row| controls(row) }
        within = rows.zip(moved).to_h { |row, (_, share)| [row.address.to_s, share] }
        Part.new(track.name, channel, notes(events), bend_range(rows), texts(rows), moved.flat_map(&:first), within)
      end

      # Drums have a channel of their own; more tracks than there are channels share them, each in its own part.
      def channel(track, place)
        return DRUMS if track.devices.any? { |device| device.type == "drum-kit" }

        [*1..9, *11..16][place % 15]
      end

      # One pitch sounds once at a time: a note ends at the latest where the next of its pitch begins.
      def notes(events)
        list = events.map do |event|
          start = [event["start_tick"].round, @from].max - @from
          [start, [[event["end_tick"].round, @to].min - @from - start, 1].max, event["pitch"],
           event["velocity"].round.clamp(1, 127)]
        end
        list.group_by { |note| note[2] }.each_value do |same|
          same.each_cons(2) do |one, other|
            one[1] = other[0] - one[0] if one[0] + one[1] > other[0] && other[0] > one[0]
          end
        end
        list.uniq { |note| [note[0], note[2]] }
      end

      def texts(rows)
        rows.reject { |row| row.number == Controllers::BEND }.map do |row|
          Formats::MidiControls.named(row.number, row.address.parameter_id)
        end
      end

      # What the course may stray is taken off what the events may.
      # @return [Array(Array<Control>, Float)] and how far they lie from what is heard
      def controls(row)
        resolver = Heard::Resolver.new(@song, row.address)
        pieces, tolerance = resolver.pieces(@from, @to), [@ways.error / 8, Course::FINE].max
        events = ControlEvents.new(row.address.parameter_id, row, @song.tempo,
                                   error: @ways.error - tolerance, per_second: @ways.per_second)
        ticks, values = events.of(Course.of_pieces(pieces, resolver.scale, tolerance))
        within = events.within(pieces, ticks, values)
        ticks = ticks.map { |tick| tick - @from } unless @from.zero?
        [split(row, ticks, values), within]
      end

      # Of 14 bits the coarser half goes by itself.
      def split(row, ticks, values)
        return [Control.new(row.number, ticks, values)] if row.bits == 7 || row.number == Controllers::BEND

        coarse = values.each_index.select { |i| i.zero? || values[i] >> 7 != values[i - 1] >> 7 }
        [Control.new(row.number, ticks.values_at(*coarse), coarse.map { |i| values[i] >> 7 }),
         Control.new(row.number + Controllers::FINE, ticks, values.map { |value| value & 127 })]
      end

      # Registered parameter 0: how far pitch bend goes (MIDI 1.0).
      def bend_range(rows)
        return [] unless rows.any? { |row| row.address.parameter_id == "bend" && row.number == Controllers::BEND }

        [[101, 0], [100, 0], [6, ControlEvents::BEND_SEMITONES], [38, 0], [101, 127], [100, 127]]
      end
    end
  end
end
