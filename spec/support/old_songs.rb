# frozen_string_literal: true

# Song documents and stored parts as version 1 wrote them.
module OldSongs
  module_function

  # @param song [KindSatchel::Song]
  # @return [Hash] a document of version 1
  def document(song)
    record = JSON.parse(JSON.generate(KindSatchel::Document.dump(song)))
    record["clips"].each { |clip| clip.delete("kind") }
    with_tempos(record, song)
    record["tracks"].each { |track| track["devices"].each { |device| old_device(device) } }
    record.merge("version" => 1)
  end

  # A list of tempos stood in the head.
  def with_tempos(record, song)
    record.delete("bpm")
    record["tempo"] = song.tempo.points.map { |one| one.to_h.transform_keys(&:to_s) }
    record["tracks"].last["lanes"].reject! { |lane| lane["target"] == "song/clock/tempo" }
  end

  # Held values stood in the place of resting ones.
  def old_device(device)
    device["values"].merge!(device["held"])
    device["held"] = device["held"].keys
  end

  # Every stored part of a document of version 1, as [kind, id, record].
  def parts(document)
    head = document.slice("name", "meter", "tempo", "range", "points_follow", "next_id")
    [["song", "head", head]] + document["tracks"].each_with_index.flat_map { |track, place| track_parts(track, place) } +
      document["clips"].flat_map { |clip| [["clip", clip["id"], clip.except("envelopes")], *envelopes(clip["envelopes"], "clip/#{clip['id']}")] }
  end

  def track_parts(track, place)
    regions = track["regions"].map { |region| ["region", region["id"], region.merge("owner" => "track/#{track['id']}")] }
    [["track", track["id"], track.except("lanes", "regions").merge("owner" => nil, "place" => place)], *regions,
     *envelopes(track["lanes"], "track/#{track['id']}")]
  end

  def envelopes(list, owner) = list.map.with_index { |one, place| ["envelope", one["id"], one.merge("owner" => owner, "place" => place)] }
end
