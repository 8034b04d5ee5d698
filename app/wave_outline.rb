# frozen_string_literal: true

# What is seen and measured of a WAV file, made once: its peaks, and how loud it is from moment to moment. Samples are
# read a part at a time, so that a long file takes no more memory than a short one.
class WaveOutline
  # Peaks a second.
  PEAKS_PER_SECOND = 100
  # So many frames are read at a time.
  PART_FRAMES = 1 << 18

  # How samples lie in a file, by format and bits: how they are unpacked, the bytes of one, what stands for silence,
  # and what is full scale.
  TYPES = {
    [:pcm, 8] => ["C*", 1, 128, 128.0], [:pcm, 16] => ["s<*", 2, 0, 32_768.0], [:pcm, 24] => [nil, 3, 0, 8_388_608.0],
    [:pcm, 32] => ["l<*", 4, 0, 2_147_483_648.0], [:float, 32] => ["e*", 4, 0, 1.0], [:float, 64] => ["E*", 8, 0, 1.0]
  }.freeze

  # @param path [String]
  # @param head [WaveHead] of that file
  def initialize(path, head)
    @path = path
    @head = head
    format = head.format
    @channels = format.channels
    @rate = format.sample_rate
    @template, @bytes, @silence, @scale = TYPES.fetch([format.sample_format, format.bits_per_sample])
    @hop = [(@rate.to_f / PEAKS_PER_SECOND).round, 1].max
  end

  # @raise [KindSatchel::InvalidInput] for samples that are no number
  # @return [Hash] `hop_seconds`, `peaks` 0..255, `energy` mean squares 0..1, one of each to a hop
  def to_record
    peaks, energy = [], []
    size = @hop * @channels
    each_part do |samples, at|
      place = 0
      while place + size <= samples.size
        hop = samples[place, size]
        place += size
        sum = squares(hop)
        numbers!(samples, at) unless sum.finite?
        peak = hop.minmax.map { |value| (value - @silence).abs }.max
        peaks << [(peak / @scale * 255).round, 255].min
        energy << (sum / (@scale * @scale) / size).clamp(0.0, 1.0).round(7)
      end
      numbers!(samples, at) unless samples.last(size).sum(0.0).finite?
    end
    { "hop_seconds" => @hop.fdiv(@rate), "peaks" => peaks, "energy" => energy }
  end

  private

  # Parts of whole hops, sample by sample, with the frame each begins at.
  def each_part
    frame = @channels * @bytes
    size = [PART_FRAMES / @hop, 1].max * @hop * frame
    left = @head.frames * frame
    File.open(@path, "rb") do |file|
      file.seek(@head.start)
      while left.positive? && (text = file.read([size, left].min))
        at = (file.pos - text.bytesize - @head.start) / frame
        left -= text.bytesize
        text = text[0, text.bytesize / frame * frame]
        break if text.empty?

        yield samples(text), at
      end
    end
  end

  # The sum of the squares of samples, silence taken off: what stands for silence is the same for all of them.
  def squares(samples)
    sum = samples.sum { |value| value * value }
    sum -= @silence * ((2 * samples.sum) - (samples.size * @silence)) unless @silence.zero?
    sum.to_f
  end

  # @param at [Integer] the frame of the first sample
  def numbers!(part, at)
    place = part.index { |sample| !sample.to_f.finite? } or return
    place = at + (place / @channels)
    raise KindSatchel::InvalidInput.of("no_number", "",
                                       "Sample #{place} of the sound, at #{place.fdiv(@rate).round(3)} s, is no " \
                                       "number.")
  end

  def samples(text) = @template ? text.unpack(@template) : from_24(text.unpack("C*"))

  # Three bytes a sample, the highest last: it carries the sign.
  def from_24(bytes)
    Array.new(bytes.size / 3) do |i|
      value = bytes[3 * i] | (bytes[(3 * i) + 1] << 8) | (bytes[(3 * i) + 2] << 16)
      value >= 8_388_608 ? value - 16_777_216 : value
    end
  end
end
