# frozen_string_literal: true

require "midilib"
require "midilib/io/midifile"
require "stringio"

# Reads a Standard MIDI File by midilib, into plain numbers for the core. The reader takes much memory for large
# files, so these are read in a worker.
module MidiFile
  # Files of at most so many bytes are read at once: they take less than starting a worker does.
  SMALL_BYTES = 8192

  module_function

  # @param bytes [String]
  # @param name [String] of the song
  # @param controls [Object, nil] what each controller moves, as it was sent
  # @return [Array(KindSatchel::Formats::MidiSong, KindSatchel::Song)] the song, and what made it, which knows what it
  #   left out
  # @raise [KindSatchel::InvalidInput] for what cannot be read
  def song(bytes, name, controls = nil)
    made = KindSatchel::Formats::MidiSong.new(score(bytes, KindSatchel::Formats::MidiControls.read(controls)), name)
    [made, made.song]
  end

  # @param bytes [String]
  # @param controls [Hash{Integer => String}] what each controller moves
  # @return [KindSatchel::Formats::MidiSong::Score]
  # @raise [KindSatchel::InvalidInput] for what cannot be read
  def score(bytes, controls = KindSatchel::Formats::MidiControls::USUAL)
    KindSatchel::Formats::MidiEvents.new(bytes).count!
    Reading.new(sequence(bytes), controls).score
  end

  # The package says what is wrong with a file, or comes to its end.
  def sequence(bytes)
    sequence = MIDI::Sequence.new
    sequence.read(StringIO.new(bytes))
    sequence
  rescue RuntimeError, EOFError
    raise KindSatchel::InvalidInput.of("broken_midi", "", "The file cannot be read: it is broken behind its head.")
  end
  private_class_method :sequence

  # One pass over all events.
  class Reading
    def initialize(sequence, controls)
      @sequence = sequence
      @controls = controls
      @tempo, @meters, @markers, @left = [], [], [], Hash.new(0)
      @parts = {}
    end

    # @return [KindSatchel::Formats::MidiScore]
    def score
      @named = Hash.new { |all, place| all[place] = {} }
      @registered, @last = {}, {}
      # The package looks through a track for its name each time.
      @sequence.each_with_index do |track, i|
        text(track.name.to_s).then do |name|
          track.each do |event|
            take(event, i, name)
          end
        end
      end
      left_words = @left.map { |(one, many), count| count == 1 ? "1 #{one}" : "#{count} #{many}" }
      KindSatchel::Formats::MidiSong::Score.new(@sequence.ppqn, @parts.values, in_order(@tempo), in_order(@meters),
                                                @markers, left_words)
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
      when MIDI::PitchBend then part(event, place,
                                     name).controls["bend"] << [event.time_from_start, (event.value - 8192) / 8192.0]
      when MIDI::Marker then @markers << [event.time_from_start, text(event.data_as_str)]
      when MIDI::MetaEvent then named(text(event.data_as_str), place) if event.meta_type == MIDI::META_TEXT
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

    # Which parameter a track says a controller moves, before the table that was asked for.
    def kind(place, number) = @named[place][number] || @controls[number]

    def named(words, place)
      found = KindSatchel::Formats::MidiControls::NAMED.match(words) and @named[place][found[1].to_i] = found[2]
    end

    def control(event, place, name)
      number = event.controller
      return if registered(event, place, name)
      return if number.between?(32, 63) && (coarse = kind(place, number - 32)) && fine(event, place, name, coarse)

      kind = kind(place, number)
      return @left[%w[event events].map { |word| "#{word} of controller #{event.controller}" }] += 1 unless kind

      @last[[place, event.channel, number]] = event.value
      part(event, place, name).controls[kind] << [event.time_from_start, event.value / 127.0]
    end

    # The finer half of a controller, which stands in the place of the coarse one on the same tick (MIDI 1.0: 0 to 31
    # with 32 to 63).
    def fine(event, place, name, kind)
      high = @last[[place, event.channel, event.controller - 32]] or return false
      list = part(event, place, name).controls[kind]
      list.pop if list.last && list.last[0] == event.time_from_start
      list << [event.time_from_start, ((high << 7) | event.value) / 16_383.0]
      true
    end

    # Registered parameter 0 is how far pitch bend goes, in semitones (MIDI 1.0).
    # @return [Boolean] whether the event belongs to one
    def registered(event, place, name)
      open = (@registered[[place, event.channel]] ||= {})
      case event.controller
      when 100, 101 then open[event.controller] = event.value
      when 6 then return false unless open == { 100 => 0, 101 => 0 }

                  part(event, place, name).bend_semitones = event.value
      when 38 then return false unless open == { 100 => 0, 101 => 0 }
      else return false
      end
      true
    end

    def part(event, place, name)
      @parts[(place << 4) | event.channel] ||=
        KindSatchel::Formats::MidiSong::Part.new(name, event.channel + 1, [], Hash.new { |all, kind| all[kind] = [] })
    end
  end
end
