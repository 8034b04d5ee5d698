# frozen_string_literal: true

require "wavefile"

# The head of a WAV file that somebody sent, before any of its sound is read: where its samples lie, and that what it
# says of them fits together. The file format library reads its meaning; sizes and rates that it takes as they stand
# are checked here.
class WaveHead
  # In Hz.
  RATES = (1_000..768_000)
  MOST_CHANNELS = 2
  # So many chunks before the samples are looked at.
  MOST_CHUNKS = 1_000
  FORMAT_BYTES = 16

  # @return [WaveFile::Format]
  attr_reader :format
  # @return [Integer] the first byte of the samples, and how many bytes there are of them
  attr_reader :start, :bytes

  # @param path [String]
  # @raise [KindSatchel::InvalidInput] with what is wrong, and at which byte
  def initialize(path)
    @size = File.size(path)
    File.open(path, "rb") { |file| look(file) }
    @format = WaveFile::Reader.new(path).then { |reader| readable(reader).tap { reader.close } }
  rescue WaveFile::FormatError, EOFError
    no_sound!
  end

  # @return [Integer] as many as the bytes of its data hold
  def frames = @bytes / (@format.channels * @format.bits_per_sample / 8)

  # @return [Integer] Hz
  def rate = @format.sample_rate

  private

  def fault!(code, words) = raise(KindSatchel::InvalidInput.of(code, "", words))
  def no_sound! = fault!("no_sound", "This is no WAV file that can be read.")

  def look(file)
    head = file.read(12).to_s
    no_sound! unless head.bytesize == 12 && head.unpack("a4x4a4") == %w[RIFF WAVE]
    MOST_CHUNKS.times do
      at = file.pos
      head = file.read(8)
      no_sound! unless head&.bytesize == 8
      name, bytes = head.unpack("a4V")
      return samples(at, bytes) if name == "data"

      fits!(name, at, bytes)
      format_chunk(file.pos, file.read(FORMAT_BYTES)) if name == "fmt "
      file.seek(at + 8 + bytes + (bytes % 2))
    end
    no_sound!
  end

  def samples(at, bytes)
    no_sound! unless @looked
    fits!("data", at, bytes)
    @start, @bytes = at + 8, bytes
  end

  def fits!(name, at, bytes)
    left = @size - at - 8
    return if bytes <= left

    # What says nothing of its format yet may be anything.
    no_sound! unless @looked

    fault!("broken_sound",
           "The WAV file is broken: its part #{name.scrub('?').strip.inspect} at byte #{at} says that it has " \
           "#{bytes} bytes, " \
           "and #{left} follow.")
  end

  def format_chunk(at, text)
    no_sound! unless text&.bytesize == FORMAT_BYTES
    _, channels, rate, _, block, bits = text.unpack("vvVVvv")
    rate!(at + 4, rate)
    wide!(channels)
    # What is kept in whole bytes.
    wanted = channels * ((bits + 7) / 8)
    unless block == wanted && wanted.positive?
      fault!("broken_sound", "The WAV file is broken: it says at byte #{at + 12} that a frame has #{block} bytes; " \
                             "#{channels} #{channels == 1 ? 'channel' : 'channels'} of #{bits} bits have #{wanted}.")
    end
    @looked = true
  end

  def rate!(at, rate)
    return if RATES.cover?(rate)

    fault!("bad_rate",
           "The sample rate at byte #{at} is #{rate} Hz; from #{RATES.min / 1000} to #{RATES.max / 1000} kHz is read.")
  end

  def wide!(channels)
    return if channels.between?(1, MOST_CHANNELS)

    fault!("too_wide", "The sound has #{channels} channels; one or two are taken.")
  end

  def readable(reader)
    raise WaveFile::FormatError unless reader.readable_format?

    reader.format
  end
end
