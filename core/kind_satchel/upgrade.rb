# frozen_string_literal: true

require_relative "upgrade/old_rule"
require_relative "upgrade/one_role"
require_relative "upgrade/passes"

module KindSatchel
  # Songs of older versions brought to this one. Of version 1: one value is set, then everything scales it, then
  # everything shifts it. What of one parameter, role and clock stood twice in a place is merged; what cannot merge is
  # kept, switched off. The places that sound different are listed.
  module Upgrade
    # A stretch of song that sounds different; `largest` as a share of the travel.
    Place = Struct.new(:address, :from, :to, :largest) do
      # @param song [Song]
      def to_record(song)
        track, name = song.owner_name(address), song.parameter_name(address)
        { "address" => address.to_s, "from_tick" => from, "to_tick" => to,
          "text" => "#{name} of #{track}, #{song.meters.text(from)} to #{song.meters.text(to)}" }
      end
    end

    module_function

    # @param record [Hash] a song document of version 1, 2 or 3
    # @return [Hash] one of today's version
    def document(record) = OldTempo.document(form(record))

    def form(record)
      # Version 3 had no macros, no free LFOs and no settings of moves that are moved or held; but for its tempos all
      # else is as it was.
      return record.merge("version" => Document::VERSION) if record["version"] == 3
      return with_limits(record) if record["version"] == 2

      clips = record["clips"].map do |clip|
        Older.record("clip", clip).merge("envelopes" => brought_up(clip["envelopes"]))
      end
      known = clips.to_h { |clip| [clip["id"], clip] }
      tracks = record["tracks"].map do |track|
        regions = track["regions"].map { |region| limited(Older.record("region", region), known[region["clip_id"]]) }
        Older.record("track", track).merge("lanes" => brought_up(track["lanes"]), "regions" => regions)
      end
      record.merge("version" => Document::VERSION, "tracks" => tracks, "clips" => clips)
    end

    # Version 2 had ranges in place of limits.
    def with_limits(record)
      record.merge("version" => Document::VERSION,
                   **%w[tracks lanes clips envelopes].each_slice(2).to_h do |owners, list|
                     [owners, record[owners].map do |owner|
                       owner.merge(list => owner[list].map { |one| Older.record("envelope", one, chains: true) })
                     end]
                   end)
    end

    # @param parts [Hash] every part of a stored song, see {Parts}
    # @return [Hash] the same, brought up
    def parts(parts)
      fresh = parts.to_h { |(kind, id), record| [Older.key(kind, id), Older.record(kind, record)] }
      owned = fresh.select { |(kind, _), _| kind == "envelope" }.values.group_by { |record| record["owner"] }
      owned.each_value { |list| merge(fresh, list.sort_by { |record| record["place"] }) }
      clips = fresh.select do |(kind, _), _|
        kind == "clip"
      end.values.to_h { |clip| [clip["id"], clip.merge("envelopes" => owned.fetch("clip/#{clip['id']}", []))] }
      fresh.to_h do |(kind, id), record|
        [[kind, id], kind == "region" ? limited(record, clips[record["clip_id"]]) : record]
      end
    end

    def brought_up(envelopes) = OneRole.merged(envelopes.map { |one| Older.record("envelope", one) })

    def limited(region, clip) = Passes.limited(region, clip, clip ? clip["envelopes"] : [])

    def merge(parts, list)
      merged = OneRole.merged(list)
      return if merged.equal?(list)

      list.each { |record| parts.delete(["envelope", record["id"]]) }
      merged.each_with_index { |record, place| parts[["envelope", record["id"]]] = record.merge("place" => place) }
    end
    private_class_method :form, :with_limits, :brought_up, :limited, :merge

    # @param song [Song] brought up
    # @return [Array<Place>] where it sounds different from what it did, by parameter and time
    def places(song) = song.automated.flat_map { |address| OldRule.new(song, address).places }
  end
end
