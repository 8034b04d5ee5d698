# frozen_string_literal: true

module KindSatchel
  # Patches for the log: of a clip whose notes, or an envelope whose points, differ in one place, just that place is
  # kept. An entry is [kind, id, record before, record after], or [kind, id, delta]:
  #
  #   { "list" => "notes", "at" => 12, "out" => [...], "in" => [...], "before" => fields, "after" => fields }
  #
  # At `at`, the entries `out` were replaced by `in`; other fields that differ are in `before` and `after`. A field
  # that only one of them has is not in the record on the other side.
  module Deltas
    LISTS = { "clip" => "notes", "envelope" => "points" }.freeze
    # Lists shorter than this are not worth taking apart.
    SHORT = 8

    module_function

    # @param patch [Hash] see {Parts}
    # @return [Array] entries for the log
    def compact(patch) = patch.map { |(kind, id), pair| [kind, id, *entry(LISTS[kind], *pair)] }

    # @param entries [Array] of the log
    # @param song [Song] as it stands
    # @param side [Integer] 1 to come to what was after, 0 to what was before
    # @return [Hash] a patch whose records of that side are whole
    def expand(entries, song, side)
      OldTempo.patch(entries.to_h do |kind, id, *rest|
        [[kind, id], rest.size == 1 ? pair(record(song, kind, id), rest[0], side) : rest]
      end, song)
    end

    # Many entries of the log in the order in which they are gone over, as one patch: each part is followed by itself,
    # and the song is put together once.
    # @param steps [Enumerable<Array>] entries of each step
    # @param song [Song] as it stands
    # @return [Hash, nil] a patch whose records of that side are whole; nil where only step by step will do, as heads
    #   of old say more than their own part
    def folded(steps, song, side)
      parts = {}
      steps.each do |entries|
        entries.each do |kind, id, *rest|
          return nil if kind == "song" && rest.any? { |head| head&.key?("tempo") }

          key = Older.key(kind, id)
          parts[key] =
            if rest.size == 1
              followed(parts, key, song, rest[0],
                       side)
            else
              rest[side] && Older.record(kind, rest[side], chains: true)
            end
        end
      end
      parts.transform_values { |record| side == 1 ? [nil, record] : [record, nil] }
    end

    # A part after one more delta.
    def followed(parts, key, song, delta, side) = pair(parts.fetch(key) { record(song, *key) }, delta, side)[side]

    def entry(list, before, after)
      return [before, after] unless list && before && after && before[list].size >= SHORT

      fields = before.keys.union(after.keys).reject { |key| key == list || before[key] == after[key] }
      [{ "list" => list, **difference(before[list], after[list]), "before" => before.slice(*fields),
         "after" => after.slice(*fields) }]
    end

    def difference(old, new)
      at = alike(old, new) { |i| i }
      tail = [alike(old, new) { |i| -1 - i }, [old.size, new.size].min - at].min
      { "at" => at, "out" => old[at...(old.size - tail)], "in" => new[at...(new.size - tail)] }
    end

    # How many entries are the same, in the order a block gives.
    def alike(old, new)
      shared = [old.size, new.size].min
      (0...shared).find { |i| old[yield(i)] != new[yield(i)] } || shared
    end

    def pair(now, delta, side)
      gone, come = side == 1 ? delta.values_at("out", "in") : delta.values_at("in", "out")
      list = now[delta["list"]].dup
      list[delta["at"], gone.size] = come
      leave, take = side == 1 ? delta.values_at("before", "after") : delta.values_at("after", "before")
      other = now.except(*leave.keys).merge(take, delta["list"] => list)
      side == 1 ? [now, other] : [other, now]
    end

    # The record of a part as it stands.
    def record(song, kind, id)
      return Records.clip(song.clip(id)) if kind == "clip"

      home = song.directory.envelope(id)
      owner, list = if home.clip
                      ["clip/#{home.clip.id}",
                       home.clip.envelopes]
                    else
                      ["track/#{home.track.id}", home.track.lanes]
                    end
      Parts.placed(Records.envelope(home.envelope), owner, list.index { |one| one.equal?(home.envelope) })
    end
    private_class_method :entry, :difference, :alike, :pair, :record, :followed
  end
end
