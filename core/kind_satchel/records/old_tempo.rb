# frozen_string_literal: true

module KindSatchel
  # Before version 4 a song had a list of tempos in its head. The first is its resting tempo now; more are a lane on
  # the master.
  module OldTempo
    LANE = ["envelope", TempoLane::ID].freeze

    module_function

    # @param head [Hash] the song's own record, of any version
    # @return [Hash] as today
    def head(head)
      return head unless head.key?("tempo")

      bpm = head["tempo"][0]["bpm"]
      head.to_h { |key, value| key == "tempo" ? ["bpm", bpm] : [key, value] }
    end

    # @return [Hash, nil] the record of the lane; nil for a head that needs none
    def lane(head)
      return unless head["tempo"].is_a?(Array) && head["tempo"].size > 1

      tempos = Records.each(head["tempo"], "/tempo") { |one| Records.read_tempo_point(one) }
      Records.envelope(TempoLane.fresh(TempoLane.points(tempos)))
    end

    # @param record [Hash] a document
    # @return [Hash]
    def document(record)
      lane = lane(record) or return head(record)
      tracks = record["tracks"].map do |track|
        track["kind"] == "master" ? track.merge("lanes" => [*track["lanes"], lane]) : track
      end
      head(record).merge("tracks" => tracks)
    end

    # @param parts [Hash] every part of a song, see {Parts}
    # @return [Hash]
    def parts(parts)
      old = parts.fetch(Parts::HEAD)
      return parts unless old.key?("tempo")

      lane, master = lane(old), parts.find { |(kind, _), record| kind == "track" && record["kind"] == "master" }
      placed = {}
      placed[["envelope", TempoLane::ID]] = placed(lane, master[0][1], lanes(parts, master[0][1])) if lane && master
      { **parts, Parts::HEAD => head(old), **placed }
    end

    # @param patch [Hash] of the log
    # @param song [Song] as it stands
    # @return [Hash] the same, of today
    def patch(patch, song)
      heads = patch[Parts::HEAD]
      return patch unless heads&.any? { |one| one&.key?("tempo") }

      master = song.tracks.last
      place = master.lanes.count { |lane| lane.id != TempoLane::ID }
      known = patch.fetch(LANE, [nil, nil])
      # A head that has a tempo says all there was of it; beside one of today the lane stands in the patch itself.
      lanes = heads.zip(known).map do |one, stored|
        one&.key?("tempo") ? lane(one)&.then { |lane| placed(lane, master.id, place) } : stored
      end
      { **patch.except(LANE), Parts::HEAD => heads.map { |one| one && head(one) },
                              **(lanes.uniq.size > 1 ? { LANE => lanes } : {}) }
    end

    def placed(lane, track_id, place) = lane.merge("owner" => "track/#{track_id}", "place" => place)

    def lanes(parts, track_id)
      parts.count { |(kind, _), record| kind == "envelope" && record["owner"] == "track/#{track_id}" }
    end
    private_class_method :placed, :lanes
  end
end
