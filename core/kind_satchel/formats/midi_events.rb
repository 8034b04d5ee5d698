# frozen_string_literal: true

require "strscan"

module KindSatchel
  module Formats
    # Walks through a Standard MIDI File (1.0) without keeping anything: how many events it has, and whether it is
    # whole.
    class MidiEvents
      # The most events that are read.
      MOST = 150_000
      # The most notes that may be held at once: a reader looks through all of them at every end of a note.
      MOST_HELD = 1024
      # Data bytes after a status byte, by its upper half.
      DATA = { 0x8 => 2, 0x9 => 2, 0xA => 2, 0xB => 2, 0xC => 1, 0xD => 1, 0xE => 2 }.freeze

      # What meta events of a kind have at least, and what these are (Standard MIDI Files 1.0).
      META = { 0x00 => [2, "a sequence number"], 0x51 => [3, "a tempo"], 0x54 => [5, "an offset of film time"],
               0x58 => [4, "a time signature"],
               0x59 => [2, "a key signature"] }.freeze

      # What most events of a large file are: a distance, a status byte of pressure, controller or pitch bend, two
      # data bytes.
      STEADY = /[\x80-\xFF]{0,3}[\x00-\x7F][\xA0-\xBF\xE0-\xEF][\x00-\x7F]{2}/n

      # @param bytes [String] the file
      def initialize(bytes)
        @bytes = bytes.b
        @at = 0
        @scanner = StringScanner.new(@bytes)
      end

      # @return [Integer] how many events there are
      # @raise [InvalidInput] for what is no MIDI file, is of type 2, is broken off, has more than {MOST}, or holds
      #   more than {MOST_HELD} notes at once
      def count!
        tracks = header!
        count = (1..tracks).sum { |track| track!(track) }
        return count if count <= MOST

        raise InvalidInput.of("too_many_events", "", "The file has #{count} events; at most #{MOST} are read.")
      end

      # The same of one track by itself.
      # @return [Integer]
      # @raise [InvalidInput]
      def count_track! = track!(1)

      private

      def header!
        fault!("no_midi", "This is no MIDI file: it does not begin with MThd.") unless take(4) == "MThd"
        size, kind, tracks, division = take(10).unpack("Nnnn")
        fault!("no_midi", "The head of a MIDI file has 6 bytes, not #{size}.") if size < 6
        fault!("wrong_type", "MIDI files of type 0 and 1 are read; this one is of type #{kind}.") if kind > 1
        if division >= 0x8000 || division.zero?
          fault!("wrong_division",
                 "Its times are frames of film; only files in ticks of a quarter note are read.")
        end
        skip(size - 6)
        tracks
      end

      def track!(number)
        name, size = take(8).unpack("a4N")
        fault!("broken_midi", "Track #{number} does not begin with MTrk.") unless name == "MTrk"
        finish = @at + size
        if finish > @bytes.bytesize
          fault!("broken_midi",
                 "Track #{number} is broken off: it says #{size} bytes, and #{@bytes.bytesize - @at} are left.")
        end

        count, status, @held = 0, nil, 0
        while @at < finish
          steady = steady!(finish)
          if steady.positive?
            count += steady
            status = @bytes.getbyte(@at - 3)
            next
          end
          number!
          status = event!(status)
          count += 1
        end
        count
      end

      # @return [Integer] how many events that move nothing but controllers and bends follow each other here
      def steady!(finish)
        count = 0
        @scanner.pos = @at
        count += 1 while @scanner.pos < finish && @scanner.skip(STEADY)
        @at = @scanner.pos
        count
      end

      # @return [Integer, nil] the status that goes on running
      def event!(running)
        byte = byte!
        # Called for every event: two comparisons make no list.
        return skip(number!) if byte == 0xF0 || byte == 0xF7 # rubocop:disable Style/MultipleComparison
        return meta! if byte == 0xFF

        status = byte >= 0x80 ? byte : running
        unless status && DATA.key?(status >> 4)
          fault!("broken_midi",
                 "At byte #{@at} stands data where an event should begin.")
        end
        data = take(DATA[status >> 4] - (byte >= 0x80 ? 0 : 1))
        hold(status >> 4, data.getbyte(-1))
        status
      end

      # What is not played; of some kinds a reader needs so many bytes.
      def meta!
        kind, size = byte!, number!
        least, name = META[kind]
        if least && size < least
          fault!("broken_midi",
                 "Before byte #{@at} stands #{name} of #{size} bytes; it has #{least}.")
        end
        skip(size)
      end

      # A note on without velocity is a note off.
      def hold(kind, velocity)
        return unless [0x8, 0x9].include?(kind)

        @held = [@held + (kind == 0x9 && velocity.positive? ? 1 : -1), 0].max
        return unless @held > MOST_HELD

        fault!("too_many_held",
               "Before byte #{@at} more than #{MOST_HELD} notes are held at once.")
      end

      # A variable-length quantity: seven bits a byte, the last without the highest bit; at most four bytes.
      def number!
        value = 0
        4.times do
          byte = byte!
          value = (value << 7) | (byte & 0x7F)
          return value if byte < 0x80
        end
        fault!("broken_midi", "At byte #{@at} stands a number of more than four bytes.")
      end

      def byte!
        byte = @bytes.getbyte(@at) or return take(1)
        @at += 1
        byte
      end

      def take(count)
        if @at + count > @bytes.bytesize
          fault!("broken_midi",
                 "The file ends at byte #{@bytes.bytesize}, in the middle of something.")
        end
        @bytes.byteslice(@at, count).tap { @at += count }
      end

      def skip(count)
        take(count)
        nil
      end

      def fault!(code, message) = raise(InvalidInput.of(code, "", message))
    end
  end
end
