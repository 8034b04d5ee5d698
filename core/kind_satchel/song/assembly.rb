# frozen_string_literal: true

module KindSatchel
  module Parts
    # Puts records onto a song, building anew only the tracks and clips they touch.
    class Assembly
      # @param records [Hash] by part key; nil removes the part
      def initialize(song, records)
        @song = song
        @head = records[HEAD]
        @kinds = records.except(HEAD).group_by { |(kind, _), _| kind }
        @kinds.transform_values! { |pairs| pairs.to_h { |(_, id), record| [id, record] } }
      end

      def song
        head = @head ? Records.read_head(@head) : {}
        @song.with(**head, tracks:, clips:)
      end

      private

      def tracks
        touched = touched_owners("track")
        return @song.tracks if touched.empty?

        named = records("track")
        kept = @song.tracks.reject { |track| named.key?(track.id) }
        kept = kept.map { |track| touched.include?(track.id) ? build_track(track.id, Records.track(track)) : track }
        by_place(kept, named.filter_map { |id, record| record && [record["place"], build_track(id, record)] })
      end

      # Whatever changed its place is named by the records, so what was kept stands right once all are back.
      def by_place(kept, placed)
        placed.sort_by(&:first).each_with_object(kept) { |(place, thing), list| list.insert([place, list.size].min, thing) }
      end

      def build_track(id, record)
        old = @song.directory.tracks[id]
        Records.read_track(record, envelopes("track/#{id}", old ? old.lanes : []), regions(id, old ? old.regions : []))
      end

      def clips
        touched = touched_owners("clip")
        return @song.clips if touched.empty?

        touched.each_with_object(@song.clips.dup) do |id, clips|
          old = clips[id]
          record = records("clip").fetch(id) { old && Records.clip(old) }
          record ? clips[id] = Records.read_clip(record, envelopes("clip/#{id}", old ? old.envelopes : [])) : clips.delete(id)
        end
      end

      def envelopes(owner, before)
        named = records("envelope")
        return before unless touched?(named, owner, before)

        built = named.values.compact.select { |record| record["owner"] == owner }
        by_place(before.reject { |envelope| named.key?(envelope.id) },
                 built.map { |record| [record["place"], Records.read_envelope(record)] })
      end

      def regions(track_id, before)
        named = records("region")
        return before unless touched?(named, "track/#{track_id}", before)

        built = named.values.compact.select { |record| record["owner"] == "track/#{track_id}" }
        kept = before.reject { |region| named.key?(region.id) }
        (kept + built.map { |record| Records.read_region(record) }).sort_by(&:start_tick)
      end

      def touched?(named, owner, before)
        named.values.any? { |record| record && record["owner"] == owner } || before.any? { |thing| named.key?(thing.id) }
      end

      # Ids of the tracks or clips that some record names, owns or takes something from.
      def touched_owners(kind)
        ids = records(kind).keys
        [*records("region"), *records("envelope")].each do |id, record|
          ids << record["owner"].delete_prefix("#{kind}/") if record && record["owner"].start_with?("#{kind}/")
          ids << old_owner(kind, id)
        end
        ids.compact.uniq
      end

      def old_owner(kind, id)
        directory = @song.directory
        home = directory.envelopes[id]
        return directory.regions[id]&.track&.id if kind == "track" && !home

        kind == "track" ? home&.track&.id : home&.clip&.id
      end

      def records(kind) = @kinds.fetch(kind) { {} }
    end
  end
end
