# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes an empty clip of notes and places it on a track. What lies under it is trimmed, split or taken away.
    module MakeClip
      def self.call(song, input)
        track = song.track(input[:track_id])
        unless track.kind == "notes"
          raise InvalidInput.of("no_notes_here", "/track_id",
                                "#{track.name} is a #{track.kind} track; it plays no notes.")
        end

        clip = Clip.new(id: "clip-#{song.next_id}", name: name(song, input, track), kind: "notes",
                        length_ticks: input[:length_ticks], notes: [], audio: nil,
                        envelopes: [])
        next_song, notices = Placing.fresh(song, track, clip, input[:start_tick])
        [next_song, "make #{clip.name}", notices]
      end

      def self.name(song, input, track)
        Transfer::Clips.free_name(song.clips.each_value.map(&:name), Inputs.name!(input.fetch(:name, track.name)))
      end
      private_class_method :name
    end
  end
end
