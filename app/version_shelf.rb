# frozen_string_literal: true

require "digest"

# Songs as they stood, under names. A version keeps its own parts, since the log loses its end when somebody edits
# after an undo; parts that are the same are kept once.
module VersionShelf
  LONGEST_NAME = 120
  # The most of one song.
  MOST = 200
  # So many parts are asked for at once.
  SLICE = 400

  # Raised for a version that is not there.
  class Missing < StandardError; end

  module_function

  # @return [Array<Hash>] the newest first
  def list(song_id)
    columns = %i[id name revision created_at]
    Database.guarded { VersionRow.where(song_id:).order(id: :desc).pluck(*columns) }.map do |id, name, revision, at|
      { "id" => id, "name" => name, "revision" => revision, "at" => at.utc.iso8601 }
    end
  end

  # Keeps a song as it stands.
  # @return [Hash] the entry
  # @raise [KindSatchel::InvalidInput] for a blank name, and for too many
  def keep(song_id, name)
    check_name(name)
    Database.write do
      if VersionRow.where(song_id:).count >= MOST
        raise KindSatchel::InvalidInput.of("too_many", "",
                                           "A song has at most #{MOST} versions.")
      end

      row = SongRow.on_shelf.find_by(id: song_id) or raise OpenSongs::Missing
      VersionRow.create!(song_id:, name: name.strip, revision: row.revision,
                         parts: JSON.generate(stored(SongRows.texts(song_id)))).entry
    end
  end

  # Gives a version another name.
  # @return [Hash] the entry
  # @raise [KindSatchel::InvalidInput] for a blank name
  # @raise [Missing]
  def rename(song_id, id, name)
    check_name(name)
    Database.write do
      row = VersionRow.find_by(song_id:, id:) or raise Missing
      row.tap { row.update!(name: name.strip) }.entry
    end
  end

  def check_name(name)
    return if name.is_a?(String) && name.strip.size.between?(1, LONGEST_NAME)

    raise KindSatchel::InvalidInput.of("bad_name", "/name", "A version's name has 1 to #{LONGEST_NAME} characters.")
  end
  private_class_method :check_name

  # When a version was kept.
  # @raise [Missing]
  def kept_at(song_id, id) = Database.guarded { VersionRow.where(song_id:, id:).pick(:created_at) } || raise(Missing)

  # @return [KindSatchel::Song]
  # @raise [Missing]
  def song(song_id, id)
    parts = Database.read do
      row = VersionRow.find_by(song_id:, id:) or raise Missing
      list = JSON.parse(row.parts)
      records = list.map(&:last).uniq.each_slice(SLICE).flat_map do |slice|
        VersionPartRow.where(digest: slice).pluck(:digest, :record)
      end.to_h
      list.to_h { |kind, part_id, digest| [[kind, part_id], JSON.parse(records.fetch(digest))] }
    end
    KindSatchel::Parts.assemble(parts)
  end

  # @raise [Missing]
  def remove(song_id, id)
    Database.write do
      (VersionRow.find_by(song_id:, id:) or raise Missing).destroy!
      clear
    end
  end

  # Songs that are gone for good.
  def forget(song_ids)
    return if VersionRow.where(song_id: song_ids).delete_all.zero?

    clear
  end

  # Parts that no version has any more go.
  def clear
    used = VersionRow.pluck(:parts).flat_map { |text| JSON.parse(text).map(&:last) }.to_h { |digest| [digest, true] }
    gone = VersionPartRow.pluck(:digest).reject { |digest| used[digest] }
    gone.each_slice(SLICE) { |slice| VersionPartRow.where(digest: slice).delete_all }
  end

  def stored(texts)
    list = texts.map { |kind, id, text| [kind, id, Digest::SHA256.hexdigest(text)] }
    rows = list.zip(texts).map { |(_, _, digest), (_, _, record)| { digest:, record: } }.uniq { |row| row[:digest] }
    rows.each_slice(SLICE) { |slice| VersionPartRow.insert_all(slice, unique_by: :digest) }
    list
  end
  private_class_method :clear, :stored
end
