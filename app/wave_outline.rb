# frozen_string_literal: true

require "numo/narray"

# What is seen and measured of a WAV file, made once: its peaks, and how loud it is from moment to moment. Samples are read a part at a
# time, so that a long file takes no more memory than a short one.
class WaveOutline
  # Peaks a second.
  PEAKS_PER_SECOND = 100
  # So many frames are read at a time.
  PART_FRAMES = 1 << 18

  # How samples lie in a file, by format and bits: their type, the bytes of one, and what is full scale.
  TYPES = {
    [:pcm, 8] => [Numo::UInt8, 1, 128.0], [:pcm, 16] => [Numo::Int16, 2, 32_768.0], [:pcm, 24] => [nil, 3, 8_388_608.0],
    [:pcm, 32] => [Numo::Int32, 4, 2_147_483_648.0], [:float, 32] => [Numo::SFloat, 4, 1.0], [:float, 64] => [Numo::DFloat, 8, 1.0]
  }.freeze

  # @param path [String]
  # @param head [WaveHead] of that file
  def initialize(path, head)
    @path = path
    @head = head
    format = head.format
    @channels = format.channels
    @rate = format.sample_rate
    @type, @bytes, @scale = TYPES.fetch([format.sample_format, format.bits_per_sample])
    @hop = [(@rate.to_f / PEAKS_PER_SECOND).round, 1].max
  end

  # @raise [KindSatchel::InvalidInput] for samples that are no number
  # @return [Hash] `hop_seconds`, `peaks` 0..255, `energy` mean squares 0..1, one of each to a hop
  def to_record
    peaks, energy = [], []
    each_part do |samples|
      rows = samples.shape[0] / @hop
      next if rows.zero?

      parts = samples[0...(rows * @hop), true].reshape(rows, @hop * @channels)
      peaks.concat((parts.abs.max(1) * 255).round.clip(0, 255).to_a.map(&:to_i))
      energy.concat((parts**2).mean(1).to_a.map { |value| value.clamp(0.0, 1.0).round(7) })
    end
    { "hop_seconds" => @hop.fdiv(@rate), "peaks" => peaks, "energy" => energy }
  end

  private

  # Parts of whole hops, as frames by channels, full scale 1.
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

        yield samples(text).tap { |part| numbers!(part, at) }
      end
    end
  end

  def numbers!(part, at)
    return if @scale != 1 || part.isfinite.all?

    place = part.isfinite.eq(0).where[0] / @channels
    raise KindSatchel::InvalidInput.of("no_number", "", "Sample #{at + place} of the sound, at #{(at + place).fdiv(@rate).round(3)} s, is no number.")
  end

  def samples(text)
    flat = @type ? @type.from_binary(text).cast_to(Numo::SFloat) : from_24(text)
    flat -= @scale if @type == Numo::UInt8
    flat.reshape(flat.size / @channels, @channels) / @scale
  end

  # Three bytes a sample, the highest last: it carries the sign.
  def from_24(text)
    bytes = Numo::UInt8.from_binary(text).reshape(text.bytesize / 3, 3).cast_to(Numo::Int32)
    value = bytes[true, 0] + (bytes[true, 1] * 256) + (bytes[true, 2] * 65_536)
    (value - ((value >= 8_388_608).cast_to(Numo::Int32) * 16_777_216)).cast_to(Numo::SFloat)
  end
end
