# frozen_string_literal: true

require "digest"
require "zlib"

# What hands did while songs played, kept beside them: every lap of a pass for each parameter, until there is a next
# pass on it. It can be written again, finer or coarser or from other laps, while its points are as the pass left
# them.
module PassShelf
  # Strokes as bytes: of each, whether it is held, how many places it has, their ticks and their values. What hands
  # play hardly gets smaller by packing, which takes longer than all else that is kept; what was packed before is read
  # as well.
  module Bytes
    # What packed bytes begin with (RFC 1950, deflate with a window of 32 KB); a stroke begins with 0 or 1.
    ZLIB = 0x78

    module_function

    # @param strokes [Array<Hash>] see {KindSatchel::Perform::Takes::Records}
    # @return [String] bytes, a quarter of what JSON takes
    def dump(strokes)
      strokes.map do |one|
        [one["held"] ? 1 : 0, one["ticks"].size].pack("CL<") + one["ticks"].pack("l<*") + one["values"].pack("E*")
      end.join
    end

    # @return [Array<Hash>] what {dump} was given
    def load(bytes)
      text, at, list = bytes.getbyte(0) == ZLIB ? Zlib.inflate(bytes) : bytes, 0, []
      while at < text.bytesize
        held, size = text.unpack("CL<", offset: at)
        list << { "held" => held == 1, "ticks" => text.unpack("l<#{size}", offset: at + 5),
                  "values" => text.unpack("E#{size}", offset: at + 5 + (4 * size)) }
        at += 5 + (12 * size)
      end
      list
    end
  end

  # How much is kept for a song, in bytes; the oldest is dropped.
  MOST_BYTES = 20 * 1024 * 1024
  # What laps are drawn with, as a share of the travel.
  DRAWN_TO = 0.02

  module_function

  # @return [Hash] the inputs of an edit with what is kept of the pass they name
  def filled(song_id, name, inputs)
    case name
    when "rewrite_pass" then rewriting(song_id, inputs)
    when "record_moves" then with_earlier(song_id, inputs["into"] == "carrier" ? with_carrier(song_id, inputs) : inputs)
    else inputs
    end
  end

  # Keeps what an edit says is to be kept; to be called as the writer.
  # @param result [KindSatchel::Edits::Result]
  # @return [Array<KindSatchel::Edits::Notice>] what was dropped for it
  def keep(song_id, inputs, result)
    return [] unless result.kept

    result.kept["moves"].each { |address, move| keep_move(song_id, inputs, address, move, result) }
    make_room(song_id)
  end

  # @param song [KindSatchel::Song] as it stands
  # @return [Array<Hash>] every parameter of every pass, the last one first
  def list(song_id, song)
    rows = Database.guarded { PassRow.where(song_id:).order(id: :desc).to_a }
    takes = Database.guarded { TakeRow.where(pass_id: rows.map(&:id)).order(:lap).to_a }.group_by(&:pass_id)
    rows.select { |row| song.parameter?(KindSatchel::Address.parse(row.address)) }.map do |row|
      entry(row, takes.fetch(row.id, []), song)
    end
  end

  # @return [Integer] how many parameters there were
  def drop(song_id, pass) = Database.write { delete(PassRow.where(song_id:, pass:)) }

  # @param song_ids [Array<Integer>] of songs that are gone for good
  def forget(song_ids) = delete(PassRow.where(song_id: song_ids))

  def delete(rows)
    TakeRow.where(pass_id: rows.select(:id)).delete_all
    rows.delete_all
  end

  def rewriting(song_id, inputs)
    row = Database.guarded do
      PassRow.find_by(song_id:, pass: inputs["pass"], address: inputs["address"])
    end or return inputs
    laps = TakeRow.where(pass_id: row.id).order(:lap).to_h { |take| [take.lap, strokes(take)] }
    written = JSON.parse(row.written)
    inputs.merge("kept" => { **JSON.parse(row.ways), "tolerance" => written["tolerance"],
                                                     "laps" => laps, "bases" => JSON.parse(row.places) })
  end

  # What is heard of a further lap is measured with the laps before it.
  def with_earlier(song_id, inputs)
    rows = Database.guarded { PassRow.where(song_id:, pass: inputs["pass"]).to_a }
    return inputs if rows.empty?

    laps = TakeRow.where(pass_id: rows.map(&:id)).order(:lap).group_by(&:pass_id)
    inputs.merge("earlier" => rows.to_h do |row|
      [row.address, laps.fetch(row.id, []).flat_map { |take| strokes(take) }]
    end)
  end

  # A further lap goes into the carrier that was made for the first.
  def with_carrier(song_id, inputs)
    ways = Database.guarded { PassRow.where(song_id:, pass: inputs["pass"]).pick(:ways) } or return inputs
    id = JSON.parse(ways)["region_id"]
    id ? inputs.merge("carrier_region_id" => id) : inputs
  end

  def keep_move(song_id, inputs, address, move, result)
    row = PassRow.find_or_initialize_by(song_id:, pass: inputs["pass"], address:)
    fresh = row.new_record?
    row.ways = JSON.generate(ways(row, inputs, result.kept))
    row.places = JSON.generate(places(row, move, result))
    written = row.written ? JSON.parse(row.written) : {}
    row.written = JSON.generate(chosen(written, inputs).merge(move.slice("points", "difference", "said")))
    row.save!
    delete(PassRow.where(song_id:, address:).where.not(id: row.id)) if fresh
    keep_take(row, inputs["lap"], result.kept, move["strokes"]) if move["strokes"]
  end

  # Into what, and as what role, it is written.
  def ways(row, inputs, kept)
    first = { "into" => inputs["into"], "role" => inputs["role"], "region_id" => kept["region_id"] }
    known = row.ways ? JSON.parse(row.ways) : first
    kept["fresh"] ? known.merge(kept.slice("into", "role").compact, "region_id" => kept["region_id"]) : known
  end

  # The envelopes it is written into, each as it was before, with how it is now.
  def places(row, move, result)
    known = row.places && !result.kept["fresh"] ? JSON.parse(row.places) : {}
    move["bases"].merge(known).to_h { |id, base| [id, base.merge("digest" => digest(result.song, id))] }
  end

  def chosen(written, inputs)
    tolerance = inputs["tolerance"] || written["tolerance"] || KindSatchel::Perform::HandPass::TOLERANCE
    return written.merge("tolerance" => tolerance) if inputs.key?("moves")

    { "tolerance" => tolerance, "parts" => inputs["parts"], "join_ticks" => inputs["join_ticks"] || 0 }
  end

  def keep_take(row, lap, kept, strokes)
    take = TakeRow.find_or_initialize_by(pass_id: row.id, lap:)
    before = take.new_record? ? [] : strokes(take)
    from, to = kept.values_at("from_tick", "to_tick")
    take.update!(from_tick: [take.from_tick, from].compact.min, to_tick: [take.to_tick, to].compact.max,
                 strokes: Bytes.dump(before + strokes))
  end

  def strokes(take) = Bytes.load(take.strokes)

  # The newest pass stays, however large.
  def make_room(song_id)
    takes = TakeRow.joins("JOIN passes ON passes.id = takes.pass_id").where(passes: { song_id: })
    sizes = takes.group("passes.pass").order("MAX(passes.id)")
                 .pluck(Arel.sql("passes.pass, SUM(LENGTH(takes.strokes))"))
    sum = sizes.sum(&:last)
    gone = sizes[..-2].take_while { |_, bytes| sum > MOST_BYTES && (sum -= bytes) }.map(&:first)
    return [] if gone.empty?

    delete(PassRow.where(song_id:, pass: gone))
    passes = gone.size == 1 ? "an older pass" : "#{gone.size} older passes"
    [KindSatchel::Edits::Notice.new("takes_dropped", [], "the samples of #{passes} are no longer kept")]
  end

  def digest(song, envelope_id)
    home = song.directory.envelopes[envelope_id] or return
    Digest::SHA256.hexdigest(JSON.generate([home.envelope.role, home.envelope.points.map do |point|
      KindSatchel::Records.point(point)
    end]))
  end

  def entry(row, takes, song)
    address = KindSatchel::Address.parse(row.address)
    ways, places, written = [row.ways, row.places, row.written].map { |text| JSON.parse(text) }
    current = places.any? && places.all? { |id, one| one["digest"] == digest(song, id) }
    { "pass" => row.pass, "address" => row.address, "name" => song.parameter(address).name,
      "owner" => song.owner_name(address),
      **ways.slice("into", "role"), "places" => places.keys.filter_map { |id| place(song, id) }, "current" => current,
      **WRITTEN, **written.slice(*WRITTEN.keys).compact, "laps" => takes.map { |take| lap(take) } }
  end
  # What is not told where nothing was written.
  WRITTEN = { "tolerance" => KindSatchel::Perform::HandPass::TOLERANCE, "parts" => nil, "join_ticks" => 0,
              "points" => 0, "difference" => 0.0,
              "said" => [] }.freeze

  def place(song, id)
    home = song.directory.envelopes[id] or return
    { "envelope_id" => id, "clip_id" => home.clip&.id, "name" => home.clip ? home.clip.name : "lane",
      "regions" => home.clip ? song.directory.regions_of_clip(home.clip.id).size : 0 }
  end

  def lap(take)
    list = KindSatchel::Perform::Takes::Records.read(strokes(take))
    { "lap" => take.lap, "from_tick" => take.from_tick, "to_tick" => take.to_tick, "samples" => list.sum do |stroke|
      stroke.ticks.size
    end,
      "strokes" => list.map { |stroke| drawn(stroke) } }
  end

  # Ticks and values in turns.
  def drawn(stroke)
    kept = if stroke.held?
             stroke.ticks.each_index.to_a
           else
             KindSatchel::Thinning.keep(stroke.ticks, stroke.values,
                                        DRAWN_TO)
           end
    kept.flat_map { |i| [stroke.ticks[i], stroke.values[i]] }
  end
  private_class_method :delete, :rewriting, :with_carrier, :with_earlier, :keep_move, :ways, :places,
                       :chosen, :keep_take, :strokes, :make_room, :digest, :entry, :place, :lap, :drawn
end
