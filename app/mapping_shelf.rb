# frozen_string_literal: true

# What the controls of controllers turn, by the names of the devices: for one song, or for all. See
# schemas/mappings.json.
module MappingShelf
  module_function

  # @param song_id [Integer]
  # @return [Hash] "song" and "all", a list of mappings each
  def read(song_id)
    rows = Database.guarded do
      MappingRow.where(song_id: [song_id, nil]).to_h { |row| [row.song_id, JSON.parse(row.list)] }
    end
    { "song" => rows.fetch(song_id, []), "all" => rows.fetch(nil, []) }
  end

  # Puts a list in the place of the one there is.
  # @param song_id [Integer, nil] nil for all songs
  # @raise [KindSatchel::InvalidInput] with every fault
  def write(song_id, list)
    Schemas.check!("mappings", list)
    list.each_with_index do |one, i|
      address = one["target"]["address"] or next
      KindSatchel::InvalidInput.under("/#{i}/target/address") { KindSatchel::Address.parse(address) }
    end
    Database.write { MappingRow.find_or_initialize_by(song_id:).update!(list: JSON.generate(list)) }
  end

  # @param song_ids [Array<Integer>] of songs that are gone for good
  def forget(song_ids) = MappingRow.where(song_id: song_ids).delete_all
end
