# frozen_string_literal: true

# What songs are handed over with: what was chosen last for each, and sets of limits under names, for all.
class HandOverShelf
  LONGEST_NAME = 120

  # @param file [String] of the sets that ship
  def initialize(file)
    @file = file
  end

  # @param song_id [Integer]
  # @param song [KindSatchel::Song]
  # @return [Hash] as the client gets it
  def read(song_id, song)
    kept = Database.guarded { SongRow.where(id: song_id).pick(:hand_over) }
    data = kept ? JSON.parse(kept) : {}
    rows = rows(song, data["controllers"])
    { "choices" => data.except("controllers"), "controllers" => rows.map { |row| named(song, row) },
      "without" => (song.sounded - rows.map(&:address)).map { |address| name(song, address) }, "sets" => sets }
  end

  # Keeps what was chosen.
  def choose(song_id, data) = Database.write { SongRow.where(id: song_id).update_all(hand_over: JSON.generate(data)) }

  # @return [Array<Hash>] those that ship, then those that are kept, by name
  def sets = shipped + Database.guarded { LimitSetRow.order(:name).map(&:entry) }

  # @return [Hash] the entry; of a name that is taken it takes the place
  # @raise [KindSatchel::InvalidInput]
  def keep(name, limits)
    fit = name.is_a?(String) && name.strip.size.between?(1, LONGEST_NAME)
    raise KindSatchel::InvalidInput.of("bad_name", "/name", "A name has 1 to #{LONGEST_NAME} characters.") unless fit

    Schemas.check!("hand_over", { "limits" => limits })
    record = KindSatchel::InvalidInput.under("/limits") do
      KindSatchel::HandOver::Limits.read(limits).with(track_ids: nil).to_record
    end
    Database.write do
      LimitSetRow.find_or_initialize_by(name: name.strip).tap do |row|
        row.update!(limits: JSON.generate(record))
      end.entry
    end
  end

  # @param id [Integer] of kept limits; what is not there is no fault
  def remove(id) = Database.write { LimitSetRow.where(id:).delete_all }

  private

  def shipped
    @shipped ||= JSON.parse(File.read(@file)).each_with_index.map do |entry, i|
      { "id" => -1 - i, **entry, "shipped" => true }
    end
  end

  # What was kept, as far as the song still has it; what is moved since then gets a first controller of those that are
  # left.
  def rows(song, records)
    return KindSatchel::HandOver::Controllers.proposed(song) unless records

    known = records.filter_map { |record| row(song, record) }
    KindSatchel::HandOver::Controllers.proposed(song, known)
  end

  def row(song, record)
    address = KindSatchel::Address.parse(record["address"])
    return unless song.sounded.include?(address)

    KindSatchel::HandOver::Controllers::Row.new(address:, number: record["number"], bits: record.fetch("bits", 7))
  rescue KindSatchel::InvalidInput
    nil
  end

  def named(song, row)
    track = song.track(KindSatchel::HandOver::Controllers.channel_track(song, row.address))
    { **row.to_record, "name" => name(song, row.address), "track" => track.name }
  end

  def name(song, address) = song.full_name(address)
end
