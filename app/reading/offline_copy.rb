# frozen_string_literal: true

# Everything the core makes of a song so that a page can show and play it while the server is away.
class OfflineCopy
  include KindSatchel

  # The largest copy a page is asked to keep, in bytes of JSON.
  LARGEST = 32 * 1024 * 1024
  # The shortest block of song that is played by itself, and the most of them.
  SHORTEST_BLOCK = Timing::PPQ
  MOST_BLOCKS = 4096

  # @param snapshot [OpenSongs::Snapshot]
  # @param block_ticks [Integer] how long the blocks are that the page plays
  # @raise [InvalidInput] for blocks too short or too many
  def initialize(snapshot, block_ticks)
    @snapshot = snapshot
    @song = snapshot.song
    @block_ticks = block_ticks
    return if block_ticks >= SHORTEST_BLOCK && blocks <= MOST_BLOCKS

    raise InvalidInput.of("out_of_range", "/block_ticks",
                          "Blocks are #{SHORTEST_BLOCK} ticks or longer, and #{MOST_BLOCKS} at most.")
  end

  # @yieldparam share [Float] how much of it is made
  def to_record
    drawing = Drawing.new(@song)
    addresses = (@song.automated | @song.sounded).map(&:to_s)
    { "revision" => @snapshot.revision,
      "clock" => { "clock" => playback.clock, "length_ticks" => @song.length_ticks },
      "drawing" => { "revision" => @snapshot.revision, **drawing.tracks(@song.tracks.map(&:id)) },
      "heard" => { "heard" => drawing.heard(addresses), "conflicts" => drawing.conflicts(addresses) },
      "stretches" => stretches { |share| yield share if block_given? } }
  end

  # @raise [InvalidInput] where it is too large to be kept
  def self.checked(text)
    return text if text.bytesize <= LARGEST

    megabytes = [text.bytesize, LARGEST].map { |bytes| (bytes / 1024.0 / 1024).ceil }
    words = "What shows and plays this song comes to %d MB; up to %d MB is kept for when the server is away."
    raise InvalidInput.of("too_large_to_keep", "/", format(words, *megabytes))
  end

  private

  def playback = @playback ||= Playback.new(@song)
  def blocks = [@song.length_ticks, @song.range.end_tick].max.fdiv(@block_ticks).ceil

  def stretches
    Array.new(blocks) do |i|
      yield i.fdiv(blocks)
      playback.stretch(i * @block_ticks, (i + 1) * @block_ticks)
    end
  end
end
