# frozen_string_literal: true

# The one boundary between rows and core values.
module SongRows
  INSERT = "INSERT INTO parts (song_id, kind, part_id, record) VALUES (?, ?, ?, ?)"

  module_function

  # @return [KindSatchel::Song]
  def read(song_id) = KindSatchel::Parts.assemble(parts(song_id))

  # @return [Array<Array(String, String, String)>] every part of a song: kind, id, JSON
  def texts(song_id) = PartRow.where(song_id:).pluck(:kind, :part_id, :record)

  # @return [Hash] parts by key, see KindSatchel::Parts
  def parsed(texts) = texts.to_h { |kind, id, text| [[kind, id], JSON.parse(text)] }

  # @return [Hash] every part of a song by key
  def parts(song_id) = parsed(texts(song_id))

  # Stores a song that has no rows yet; one prepared statement for all of them.
  def insert(song_id, song)
    statement = PartRow.connection.raw_connection.prepare(INSERT)
    KindSatchel::Parts.all(song).each do |(kind, id), record|
      statement.execute(song_id, kind, id, JSON.generate(record))
    end
  ensure
    statement&.close
  end

  # Writes one side of a patch: only the rows it names.
  # @param side [Integer] 1 the records after, 0 the records before
  # @return [Integer] by how many bytes the song's text has grown, about
  def write(song_id, patch, side)
    gone, kept = patch.partition { |_, pair| pair[side].nil? }
    gone.to_h.each_key { |(kind, id)| PartRow.where(song_id:, kind:, part_id: id).delete_all }
    rows = kept.map { |(kind, id), pair| row(song_id, kind, id, pair[side]) }
    PartRow.upsert_all(rows, unique_by: %i[song_id kind part_id], update_only: [:record]) unless rows.empty?
    rows.sum { |entry| entry[:record].bytesize }
  end

  # A first look at a song needs no points and notes; whether an envelope acts is told all the same.
  SLIM = Arel.sql(<<~SQL.squish)
    CASE kind WHEN 'envelope' THEN json_set(record, '$.points', json('[]'), '$.acts',
                json(iif(json_extract(record, '$.on')
                         AND (json_array_length(record, '$.points') OR json_extract(record, '$.source') IS NOT NULL),
                         'true', 'false')))
              WHEN 'clip' THEN json_set(record, '$.notes', json('[]'))
              ELSE record END
  SQL

  # The parts of a song as JSON text, straight from the rows: [[kind, id, record], ...]; points and notes left out.
  def json(song_id)
    entries = PartRow.where(song_id:).order(:kind, :part_id).pluck(:kind, :part_id, SLIM)
    list = entries.map do |kind, id, record|
      kind == "song" ? [kind, id, Wire.head(JSON.parse(record)).to_json] : [kind, id, record]
    end
    "[#{list.map { |kind, id, record| "[#{kind.to_json},#{id.to_json},#{record}]" }.join(',')}]"
  end

  def row(song_id, kind, id, record) = { song_id:, kind:, part_id: id, record: JSON.generate(record) }

  private_class_method :row
end
