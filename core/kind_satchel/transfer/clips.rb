# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Clips that come to another track. A clip moves the knobs of the track it sounds on, so its envelopes are turned to
    # what answers there; what finds no answer stays in the clip, switched off. A carrier clip goes as it is.
    class Clips
      # The song so far; and the parameters that found an answer, and those that did not, by name.
      attr_reader :song, :lost
      # Clips that have effects of their own and so were made separate.
      attr_reader :separated

      def initialize(song)
        @song = song
        @found = []
        @lost = []
        @separated = []
        @made = {}
      end

      # @return [Array<Clip>] those that came along
      def found = @found - @lost

      # @param clip_id [String]
      # @param from [Track] where it comes from
      # @param to [Track]
      # @param alone [Boolean] whether none of its regions stays behind, so that the clip itself may be turned
      # @return [String] the id of the clip to place on `to`
      def on(clip_id, from, to, alone:)
        @made[[clip_id, to.id]] ||= turned(@song.clip(clip_id), from, to, alone)
      end

      private

      def turned(clip, from, to, alone)
        note(clip.envelopes)
        here = ->(envelope) { envelope.target.owner_id == from.id }
        if clip.carrier? || from.id == to.id || (clip.envelopes.none?(&here) && (alone || clip.devices.empty?))
          return clip.id
        end

        envelopes = Clips.turned_envelopes(clip.envelopes, Match.new(@song, from, to))
        @lost |= names(envelopes.select(&here))
        alone ? keep(clip.with(envelopes:)) : keep_copy(clip.with(envelopes:))
      end

      # With effects of its own a clip sounds on one track.
      def keep_copy(clip)
        @separated |= [clip] if clip.devices.any?
        copy, @song = Clips.own_copy(@song, clip)
        keep(copy)
      end

      def keep(clip)
        @song = @song.with_clip(clip)
        clip.id
      end

      def note(envelopes) = @found |= names(envelopes.select(&:acts?))
      def names(envelopes) = envelopes.map { |envelope| @song.parameter_name(envelope.target) }

      class << self
        # @return [Array<Envelope>] in the same order; without an answer, or where another of the role has taken it,
        #   switched off
        def turned_envelopes(envelopes, match)
          taken = {}
          envelopes.map do |envelope|
            target = match.address(envelope.target)
            free = target && !taken.key?([target, envelope.role])
            taken[[target, envelope.role]] = true if target
            free ? envelope.with(target:) : envelope.with(on: false)
          end
        end

        # A clip once more, with ids and a name of its own. What moves settings of its moves from elsewhere moves
        # those of the copy too.
        # @param followed [Boolean] whether it does
        # @return [Array(Clip, Song)] the copy, not yet in the song, and the song that knows of its ids
        def own_copy(song, clip, followed: true)
          ids = clip.envelopes.each_with_index.to_h { |envelope, i| [envelope.id, "envelope-#{song.next_id + 1 + i}"] }
          name = free_name(song.clips.each_value.map(&:name), clip.name)
          copy = clip.under(id: "clip-#{song.next_id}", name:, envelopes: Copies.renamed(clip.envelopes, ids))
          song = song.with(next_id: song.next_id + 1 + ids.size)
          [copy, followed ? Copies.followed(song, ids) : song]
        end

        # "Mooring", "Mooring 2", "Mooring 3", ...
        def free_name(taken, name)
          known = taken.to_h { |other| [other, true] }
          return name unless known.key?(name)

          stem = name.sub(/ \d+\z/, "")[0, Song::MOST_NAME - 6]
          (2..).lazy.map { |i| "#{stem} #{i}" }.find { |candidate| !known.key?(candidate) }
        end
      end
    end
  end
end
