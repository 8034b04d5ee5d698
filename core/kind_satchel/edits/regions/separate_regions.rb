# frozen_string_literal: true

module KindSatchel
  module Edits
    # Gives regions a copy of their clip, so that edits in it no longer show elsewhere. Regions that shared a clip share
    # the copy, unless `each` asks for one for each of them.
    module SeparateRegions
      def self.call(song, input)
        placed = Regions.named(song, input[:region_ids])
        apart = input.fetch(:each, false)
        leaving = placed.group_by do |one|
          one.region.clip_id
        end.select { |clip_id, list| shared?(song, clip_id, list, apart) }
        raise InvalidInput.of("not_shared", "/region_ids", lonely_words(song, placed)) if leaving.empty?

        next_song = leaving.reduce(song) { |now, (_, list)| apart ? each_apart(song, now, list) : separated(now, list) }
        [next_song, "separate #{Regions.words(song, leaving.values.flatten)}"]
      end

      def self.shared?(song, clip_id, list, apart)
        sharers = song.directory.regions_of_clip(clip_id).size
        apart ? sharers > 1 : list.size < sharers
      end

      def self.lonely_words(song, placed)
        name = song.clip(placed.first.region.clip_id).name
        return "#{name} is in one region only; there is nothing to separate." if placed.size == 1

        "No other region shares a clip with the chosen ones; to part them from each other, separate each of them."
      end

      # One of them may keep the clip when nobody else has it.
      def self.each_apart(before, song, list)
        alone = list.size == before.directory.regions_of_clip(list.first.region.clip_id).size
        list.drop(alone ? 1 : 0).reduce(song) { |now, one| separated(now, [one]) }
      end

      def self.separated(song, list)
        clip = song.clip(list.first.region.clip_id)
        copy, song = Transfer::Clips.own_copy(song, clip)
        placed = list.map { |one| song.directory.region(one.region.id) }
        Regions.change(song.with_clip(copy), placed) { |one| one.region.onto(clip, copy) }
      end
      private_class_method :shared?, :lonely_words, :each_apart, :separated
    end
  end
end
