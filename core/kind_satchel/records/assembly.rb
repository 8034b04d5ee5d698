# frozen_string_literal: true

module KindSatchel
  module Parts
    # Puts records onto a song, building anew only the tracks and clips they touch.
    class Assembly
      # More tracks and clips than these are not worth replacing one by one.
      FEW = 8

      # @param records [Hash] by part key; nil removes the part
      def initialize(song, records)
        @song = song
        @head = records[HEAD]
        @kinds = records.except(HEAD).group_by { |(kind, _), _| kind }
        @kinds.to_h.each do |kind, pairs|
          @kinds[kind] = pairs.to_h do |(_, id), record|
            [Older.key(kind, id)[1], record && Older.record(kind, record, chains: true)]
          end
        end
      end

      # @return [Song]
      # @raise [InvalidInput]
      def song
        head = @head ? Records.read_head(@head) : {}
        return in_place(@song.with(**head)) if in_place?

        @song.with(**head, tracks:, clips:)
      end

      private

      # Whether all tracks stay where they stand and no clip goes, so that the song's directory can be brought up to
      # date.
      def in_place?
        return false if touched_owners("track").size + touched_owners("clip").size > FEW || records("clip").value?(nil)

        records("track").all? { |id, record| record && @song.tracks[record["place"]]&.id == id }
      end

      def in_place(song)
        named = records("track")
        song = touched_owners("track").reduce(song) do |now, id|
          now.with_track(build_track(id, named.fetch(id) { Records.track(@song.track(id)) }))
        end
        touched_owners("clip").reduce(song) { |now, id| now.with_clip(build_clip(id)) }
      end

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
        placed.sort_by(&:first).each_with_object(kept) do |(place, thing), list|
          list.insert([place, list.size].min, thing)
        end
      end

      def build_track(id, record)
        old = @song.directory.tracks[id]
        Records.read_track(record, envelopes("track/#{id}", old ? old.lanes : []), regions(id, old ? old.regions : []))
      end

      def clips
        touched = touched_owners("clip")
        return @song.clips if touched.empty?

        touched.each_with_object(@song.clips.dup) do |id, clips|
          clip = build_clip(id)
          clip ? clips[id] = clip : clips.delete(id)
        end
      end

      def build_clip(id)
        old = @song.clips[id]
        record = records("clip").fetch(id) { old && Records.clip(old) }
        record && Records.read_clip(record, envelopes("clip/#{id}", old ? old.envelopes : []))
      end

      def envelopes(owner, before)
        named = records("envelope")
        built = owned("envelope", owner)
        return before if built.empty? && before.none? { |envelope| named.key?(envelope.id) }

        OneOfEach.kept(by_place(before.reject { |envelope| named.key?(envelope.id) },
                                built.map { |record| [record["place"], Records.read_envelope(record)] }))
      end

      def regions(track_id, before)
        named = records("region")
        built = owned("region", "track/#{track_id}")
        return before if built.empty? && before.none? { |region| named.key?(region.id) }

        kept = before.reject { |region| named.key?(region.id) }
        (kept + built.map { |record| Records.read_region(record) }).sort_by(&:start_tick)
      end

      # Records of one kind that say they belong to an owner.
      def owned(kind, owner)
        @owned ||= {}
        @owned[kind] ||= records(kind).values.compact.group_by { |record| record["owner"] }
        @owned[kind].fetch(owner, [])
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
