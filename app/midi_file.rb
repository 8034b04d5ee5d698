# frozen_string_literal: true

require "midilib"
require "midilib/io/midifile"
require "stringio"

# Reads a Standard MIDI File by midilib, into plain numbers for the core. The reader takes much memory for large files, so it runs in a
# worker.
module MidiFile
  module_function

  # @param bytes [String]
  # @param controls [Hash{Integer => String}] what each controller moves
  # @return [KindSatchel::Formats::MidiSong::Score]
  # @raise [KindSatchel::InvalidInput] for what cannot be read
  def score(bytes, controls = KindSatchel::Formats::MidiControls::USUAL)
    KindSatchel::Formats::MidiEvents.new(bytes).count!
    sequence = MIDI::Sequence.new
    sequence.read(StringIO.new(bytes))
    Reading.new(sequence, controls).score
  rescue NoMethodError, RuntimeError, EOFError => e
    raise KindSatchel::InvalidInput.of("broken_midi", "", "The file cannot be read (#{e.message[0, 80]}).")
  end

  # One pass over all events.
  class Reading
    def initialize(sequence, controls)
      @sequence = sequence
      @controls = controls
      @tempo, @meters, @markers, @left = [], [], [], Hash.new(0)
      @parts = {}
    end

    def score
      # The package looks through a track for its name each time.
      @sequence.each_with_index { |track, i| text(track.name.to_s).then { |name| track.each { |event| take(event, i, name) } } }
      told = @left.map { |(one, many), count| count == 1 ? "1 #{one}" : "#{count} #{many}" }
      KindSatchel::Formats::MidiSong::Score.new(@sequence.ppqn, @parts.values, in_order(@tempo), in_order(@meters), @markers, told)
    end

    private

    # By tick, those of one tick as they came.
    def in_order(list) = list.sort_by.with_index { |one, i| [one.first, i] }

    def take(event, place, name)
      case event
      when MIDI::NoteOff then nil
      when MIDI::NoteOn then note(event, place, name)
      when MIDI::Tempo then @tempo << [event.time_from_start, 60_000_000.0 / event.tempo]
      when MIDI::TimeSig then @meters << [event.time_from_start, event.numerator, 2**event.denominator.clamp(0, 16)]
      when MIDI::Controller then control(event, place, name)
      when MIDI::PitchBend then part(event, place, name).controls["bend"] << [event.time_from_start, (event.value - 8192) / 8192.0]
      when MIDI::Marker then @markers << [event.time_from_start, text(event.data_as_str)]
      when MIDI::ProgramChange then @left[["change of instrument", "changes of instrument"]] += 1
      end
    end

    # Text has no declared form in a file: UTF-8 where it is that, else the older eight bits.
    def text(bytes)
      text = bytes.dup.force_encoding(Encoding::UTF_8)
      text.valid_encoding? ? text : bytes.dup.force_encoding(Encoding::ISO_8859_1).encode(Encoding::UTF_8)
    end

    def note(event, place, name)
      return if event.velocity.zero? || event.off.nil?

      length = event.off.time_from_start - event.time_from_start
      part(event, place, name).notes << [event.time_from_start, length, event.note, event.velocity]
    end

    def control(event, place, name)
      kind = @controls[event.controller]
      return @left[%w[event events].map { |word| "#{word} of controller #{event.controller}" }] += 1 unless kind

      part(event, place, name).controls[kind] << [event.time_from_start, event.value / 127.0]
    end

    def part(event, place, name)
      @parts[(place << 4) | event.channel] ||=
        KindSatchel::Formats::MidiSong::Part.new(name, event.channel + 1, [], Hash.new { |all, kind| all[kind] = [] })
    end
  end
end
