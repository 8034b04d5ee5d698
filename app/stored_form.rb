# frozen_string_literal: true

# Whether what is stored of a song has the form that it should have: JSON that fits the schema of its version, and
# that the core's reader takes. Asked only after something went wrong, to tell damage of a song from a mistake of
# ours.
module StoredForm
  OWN = %w[owner place].freeze

  module_function

  # @param song_id [Integer]
  # @return [String, nil] what is wrong with it; nil where its form is sound
  def damage(song_id)
    format = SongRow.where(id: song_id).pick(:format)
    records = SongRows.parsed(SongRows.texts(song_id))
    document = document(records, format)
    Schemas.check!(format == KindSatchel::Document::VERSION ? "song" : "song-#{format}", document)
    KindSatchel::Document.load(document) if format == KindSatchel::Document::VERSION
    nil
  rescue JSON::ParserError
    "it is no JSON"
  rescue KindSatchel::InvalidInput => e
    # Its words may quote what is stored.
    "#{e.faults.first.code} at #{e.faults.first.path[0, 100]}"
  end

  # The parts as a document.
  def document(records, format)
    kinds = records.group_by { |(kind, _), _| kind }.transform_values { |list| list.map(&:last) }
    head = kinds.fetch("song", [{}]).first
    owned = [*kinds["envelope"], *kinds["region"]].grep(Hash).group_by { |one| one["owner"] }
    tracks = kinds.fetch("track", []).sort_by { |track| track["place"].to_i }.map do |track|
      lanes, regions = owned.fetch("track/#{track['id']}", []).partition { |one| one.key?("target") }
      track.except(*OWN).merge("lanes" => placed(lanes), "regions" => placed(regions.sort_by do |region|
        region["start_tick"].to_i
      end))
    end
    clips = kinds.fetch("clip", []).map do |clip|
      clip.except(*OWN).merge("envelopes" => placed(owned.fetch("clip/#{clip['id']}", [])))
    end
    { "format" => KindSatchel::Document::FORMAT, "version" => format, **head, "tracks" => tracks, "clips" => clips }
  end

  def placed(list) = list.sort_by { |one| one["place"].to_i }.map { |one| one.except(*OWN) }
  private_class_method :document, :placed
end
