# frozen_string_literal: true

# What is chosen to be handed over (schemas/hand_over.json), with what stands for what was left out.
class HandOverChoices
  include KindSatchel

  USUAL = { "baked" => false, "document" => false, "packed" => false, "midi" => false, "midi_clips" => false,
            "midi_regions" => false,
            "csv" => "none", "step_ticks" => 240, "sheet" => false, "error" => 0.01, "sounds" => [] }.freeze

  attr_reader :song, :data

  # @param song [Song]
  # @param data [Hash] that fits the schema
  # @raise [InvalidInput] for limits or controllers that cannot be
  def initialize(song, data)
    @song = song
    @data = USUAL.merge(data.compact)
    limits
    rows
    raise InvalidInput.of("out_of_range", "/to_tick", "A stretch ends after it starts.") unless from < to
  end

  # @return [Object, nil] what was chosen under a name of `schemas/hand_over.json`
  def [](name) = @data[name]

  # @return [Integer] the first tick that is handed over
  def from = @data.fetch("from_tick", 0)

  # @return [Integer] the tick at which it ends
  def to = @data.fetch("to_tick", song.length_ticks)

  # @return [HandOver::Limits, nil]
  def limits
    @limits ||= @data["limits"] && InvalidInput.under("/limits") { HandOver::Limits.read(@data["limits"]) }
  end

  # @return [Array<HandOver::Controllers::Row>] the table that was given, or the first proposal
  def rows
    chosen = @data["controllers"]
    @rows ||= chosen ? HandOver::Controllers.read(song, chosen) : HandOver::Controllers.proposed(song)
  end

  # @param song [Song] what goes out: as it is, or baked
  def ways(song)
    known = rows.select { |row| song.parameter?(row.address) }
    error = limits&.bits == 7 ? [self["error"], 0.5 / 127].max : self["error"]
    HandOver::Score::Ways.new(known, error, self["per_second"], limits&.track_ids)
  end

  # Parameters without a controller.
  # @return [Array<Address>]
  def without_controller = song.sounded - rows.map(&:address)
end
