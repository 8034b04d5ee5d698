# frozen_string_literal: true

# The satchel: moves by themselves under names, for all songs; a good set that ships, and what people keep.
class MoveShelf
  # So many of one's own.
  MOST = 2000
  PPQ = KindSatchel::Timing::PPQ

  # Raised for a kept move that is not there.
  class Missing < StandardError; end

  # An entry of the satchel. Shipped ones have ids below 0.
  Entry = Struct.new(:id, :move) do
    def shipped? = id.negative?

    # @return [Hash] what the list tells of it
    def record
      move.memo(:record) do
        { "move" => KindSatchel::Records.kept_move(move), "outline" => KindSatchel::Heard::Outline.of_kept(move),
          "rate" => move.lfo? ? move.source.text : nil }.compact
      end
          .merge("id" => id, "shipped" => shipped?)
    end
  end

  # @param file [String] of the set that ships
  def initialize(file)
    @file = file
    @read = {}
    @lock = Mutex.new
  end

  # @return [Array<Entry>] one's own first, the last kept first of all; then the shipped ones
  def list = own + shipped

  # @param move [KindSatchel::KeptMove]
  # @return [Entry]
  # @raise [KindSatchel::InvalidInput]
  def keep(move)
    room!(1)
    Database.write { Entry.new(KeptMoveRow.create!(name: move.name, record: text(move)).id, move) }
  end

  # @return [Entry] under another name, or with other tags
  # @raise [Missing]
  def rename(id, name, tags)
    entry = find(id)
    move = entry.move.with(**{ name:, tags: }.compact)
    Database.write { (KeptMoveRow.find_by(id:) or raise Missing).update!(name: move.name, record: text(move)) }
    Entry.new(id, move)
  end

  # @return [Entry] what was let go of
  # @raise [Missing]
  def remove(id)
    entry = find(id)
    Database.write { (KeptMoveRow.find_by(id:) or raise Missing).destroy! }
    entry
  end

  # Takes moves of a file in; what is here already, the same in all, is left.
  # @param data [Hash] that fits schemas/satchel.json
  # @return [Array<Entry>] those that are new
  # @raise [KindSatchel::InvalidInput] with every fault; then none is taken
  def take(data)
    Schemas.check!("satchel", data)
    moves = KindSatchel::Records.each(data["moves"], "/moves") { |record| KindSatchel::Records.read_kept_move(record) }
    known = list.to_h { |entry| [text(entry.move), true] }
    fresh = moves.uniq { |move| text(move) }.reject { |move| known.key?(text(move)) }
    room!(fresh.size)
    Database.write { fresh.map { |move| Entry.new(KeptMoveRow.create!(name: move.name, record: text(move)).id, move) } }
  end

  # One's own, or those named, as a file holds them.
  # @param ids [Array<Integer>, nil]
  def file(ids = nil)
    entries = ids ? list.select { |entry| ids.include?(entry.id) } : own
    { "format" => "kind-satchel-moves", "version" => 1,
      "moves" => entries.map { |entry| KindSatchel::Records.kept_move(entry.move) } }
  end

  # @return [Array<Integer>] ids, the most alike first
  def nearest(move)
    ids = {}.compare_by_identity
    list.each { |entry| ids[entry.move] = entry.id }
    KindSatchel::Likeness.nearest(move, ids.keys).map { |one| ids[one] }
  end

  # @return [Array<Entry>] the moves every satchel begins with; their ids are negative
  def shipped
    @shipped ||= JSON.parse(File.read(@file)).each_with_index.map { |entry, i| Entry.new(-1 - i, shipped_move(entry)) }
  end

  private

  def own
    rows = Database.guarded { KeptMoveRow.order(id: :desc).pluck(:id, :record) }
    @lock.synchronize do
      fresh = rows.to_h do |id, record|
        [[id, record], @read[[id, record]] || KindSatchel::Records.read_kept_move(JSON.parse(record))]
      end
      @read = fresh
      fresh.map { |(id, _), move| Entry.new(id, move) }
    end
  end

  def find(id) = own.find { |entry| entry.id == id } || raise(Missing)
  def text(move) = JSON.generate(KindSatchel::Records.kept_move(move))

  def room!(more)
    return if Database.guarded { KeptMoveRow.count } + more <= MOST

    raise KindSatchel::InvalidInput.of("too_many", "/moves",
                                       "The satchel holds at most #{MOST} moves of your own; let go of some first.")
  end

  # As it is written: beats in place of ticks; `steps` of x and . as on a grid; an LFO by its note length.
  def shipped_move(entry)
    length = (entry["beats"] * PPQ).round
    settings = entry["lfo"]&.except("cycle")&.transform_keys(&:to_sym)
    source = settings && KindSatchel::Sources::Lfo.plain.with(cycle_ticks: cycle(entry), **settings)
    points = source ? [] : points_of(entry, length).map { |record| KindSatchel::Records.read_point(record) }
    KindSatchel::KeptMove.new(name: entry["name"], tags: entry["tags"], role: entry.fetch("role", "set"),
                              length_ticks: length,
                              limits: KindSatchel::KeptMove::FULL,
                              source: source || KindSatchel::Sources::Drawn::PLAIN, points:)
  end

  def cycle(entry) = KindSatchel::Timing::NoteLengths.parse(entry["lfo"]["cycle"])

  def points_of(entry, length)
    if entry["points"]
      return entry["points"].map do |beat, value, shape|
        { "tick" => (beat * PPQ).round, "value" => value, **shape_of(shape) }
      end
    end

    steps = entry["steps"].chars
    held = steps.each_with_index.map do |char, i|
      { "tick" => length * i / steps.size, "value" => char == "x" ? 1 : 0, "shape" => "hold" }
    end
    [*held.chunk_while { |one, other| one["value"] == other["value"] }.map(&:first), held.last.merge("tick" => length)]
  end

  def shape_of(shape)
    return { "shape" => shape, **(shape == "ess" ? { "curve" => 0.5 } : {}) } if shape.is_a?(String)

    shape.is_a?(Hash) ? { "shape" => "cycle", **shape } : { "shape" => "curved", "curve" => shape }
  end
end
