# frozen_string_literal: true

module KindSatchel
  module Formats
    # Writes a Standard MIDI File (1.0) of type 1: a first track of tempo, signatures and markers, then one for each
    # part. Events are packed into whole numbers before they are put in order, so that millions of them take seconds.
    class MidiWriter
      # On one tick notes end first, then controllers move, then notes begin.
      RANKS = { off: 0, control: 1, on: 2 }.freeze
      NOTE_OFF, NOTE_ON, CONTROL, BEND = 0x8, 0x9, 0xB, 0xE
      # How hard a key is let go, where nobody says (MIDI 1.0).
      RELEASE = 64

      # @param score [#name, #ppq, #length_ticks, #tempo, #meters, #markers] see {HandOver::Score}
      def initialize(score)
        @score = score
      end

      # @param tracks [Array<String>] of {track}
      # @return [String] the file
      def file(tracks)
        ["MThd", [6, 1, tracks.size + 1, @score.ppq].pack("Nnnn"), lead, *tracks].join.b
      end

      # @param part [HandOver::Score::Part]
      # @return [String] its track
      def track(part)
        channel = part.channel - 1
        bytes = [0, 0xFF, 0x03, *text(part.name)]
        part.texts.each { |words| bytes.push(0, 0xFF, 0x01, *text(words)) }
        part.lead.each { |number, value| bytes.push(0, (CONTROL << 4) | channel, number, value) }
        at, track = 0, bytes.pack("C*")
        packed(part).sort!.each do |event|
          tick = event >> 20
          length(track, tick - at)
          at = tick
          track << ((((event >> 14) & 0xF) << 4) | channel) << ((event >> 7) & 0x7F) << (event & 0x7F)
        end
        chunk(track, at)
      end

      private

      def packed(part)
        list = []
        part.notes.each do |tick, length, pitch, velocity|
          list << pack(tick + length, :off, NOTE_OFF, pitch, RELEASE) << pack(tick, :on, NOTE_ON, pitch, velocity)
        end
        part.controls.each { |control| add(list, control) }
        list
      end

      def pack(tick, rank, kind, first, second)
        (tick << 20) | (RANKS.fetch(rank) << 18) | (kind << 14) | (first << 7) | second
      end

      # Of pitch bend the finer half comes first.
      def add(list, control)
        bend = control.number == "bend"
        base = (RANKS[:control] << 18) | ((bend ? BEND : CONTROL) << 14) | (bend ? 0 : control.number << 7)
        amounts = control.amounts
        control.ticks.each_with_index do |tick, i|
          value = amounts[i]
          list << ((tick << 20) | base | (bend ? ((value & 0x7F) << 7) | (value >> 7) : value))
        end
      end

      def lead
        events = @score.tempo.map do |tick, micros|
          [tick, [0xFF, 0x51, 3, micros >> 16, (micros >> 8) & 0xFF, micros & 0xFF]]
        end
        events += @score.meters.map { |tick, beats, unit| [tick, [0xFF, 0x58, 4, beats, Math.log2(unit).round, 24, 8]] }
        events += @score.markers.map { |tick, name| [tick, [0xFF, 0x06, *text(name)]] }
        bytes = [0, 0xFF, 0x03, *text(@score.name)]
        at = 0
        events.sort_by.with_index { |(tick, _), i| [tick, i] }.each do |tick, data|
          length(bytes, tick - at)
          bytes.concat(data)
          at = tick
        end
        chunk(bytes.pack("C*"), at)
      end

      def text(words)
        bytes = words.dup.force_encoding(Encoding::BINARY)
        list = []
        length(list, bytes.bytesize)
        list.concat(bytes.bytes)
      end

      # A track ends where the score does.
      def chunk(bytes, at)
        bytes << [[@score.length_ticks - at, 0].max, 0xFF, 0x2F, 0].pack("wCCC")
        "MTrk".b << [bytes.bytesize].pack("N") << bytes
      end

      # A variable-length quantity: seven bits a byte, all but the last marked.
      # @param bytes [Array, String] of bytes
      def length(bytes, number)
        return bytes << number if number < 0x80

        bytes << (0x80 | (number >> 21)) if number >= 0x200000
        bytes << (0x80 | ((number >> 14) & 0x7F)) if number >= 0x4000
        bytes << (0x80 | ((number >> 7) & 0x7F)) << (number & 0x7F)
      end
    end
  end
end
