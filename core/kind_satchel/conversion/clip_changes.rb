# frozen_string_literal: true

module KindSatchel
  module Conversion
    # Gives some regions a clip with other envelopes. Where other regions share the clip, those keep it and the chosen
    # ones get a copy; regions that come to the same envelopes share one.
    class ClipChanges
      # The song so far, and the clips that were made separate.
      attr_reader :song, :separated

      def initialize(song)
        @song = song
        @separated = []
      end

      # @param clip [Clip]
      # @param groups [Array<Array(Array<Directory::Placed>, Array<Envelope>)>] some of its regions, and the envelopes
      #   they come to
      def change(clip, groups)
        sharers = @song.directory.regions_of_clip(clip.id).size
        placed, envelopes = groups.first
        return @song = @song.with_clip(clip.with(envelopes:)) if groups.size == 1 && placed.size == sharers

        @separated |= [clip]
        groups.each { |some, theirs| part(clip, some, theirs) }
      end

      # @return [String] an id for a new envelope
      def fresh_id
        @song = @song.with(next_id: @song.next_id + 1)
        "envelope-#{@song.next_id - 1}"
      end

      private

      def part(clip, placed, envelopes)
        changed = clip.with(envelopes:)
        copy, song = Transfer::Clips.own_copy(@song, changed)
        ids = placed.to_h { |one| [one.region.id, true] }
        song = song.with_clip(copy)
        @song = placed.map { |one| one.track.id }.uniq.reduce(song) do |now, id|
          track = now.track(id)
          regions = track.regions.map { |region| ids.key?(region.id) ? region.onto(changed, copy) : region }
          now.with_track(track.with(regions:))
        end
      end
    end
  end
end
