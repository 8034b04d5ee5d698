# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a clip of a recorded sound and places it: on a track of audio, or on a new one. It is as long as its tempo
    # says, to the tick; what lies under it is trimmed, split or taken away.
    module PlaceSound
      def self.call(song, input)
        song, track = track(song, input)
        clip = clip(song, input)
        next_song, notices = Placing.fresh(song, track, clip, input[:start_tick])
        [next_song, "place #{clip.name}", notices]
      end

      def self.track(song, input)
        return on_new_track(song, input) unless input[:track_id]

        track = song.track(input[:track_id])
        return [song, track] if track.kind == "audio"

        raise InvalidInput.of("no_audio_here", "/track_id",
                              "#{track.name} is a #{track.kind} track; it plays no recorded sounds.")
      end

      def self.on_new_track(song, input)
        made, = AddTrack.call(song, { kind: "audio", name: input[:name], **input.slice(:before) })
        [made, made.track("track-#{song.next_id}")]
      end

      def self.clip(song, input)
        bpm, start = input[:bpm].to_f, input.fetch(:start_seconds, 0).to_f
        unless start < input[:seconds]
          raise InvalidInput.of("out_of_range", "/start_seconds",
                                "The sound lasts #{input[:seconds]} s; it cannot begin after that.")
        end

        ticks = ((input[:seconds] - start) * bpm / 60 * Timing::PPQ).round
        name = Transfer::Clips.free_name(song.clips.each_value.map(&:name), Inputs.name!(input[:name]))
        Clip.new(id: "clip-#{song.next_id}", name:, kind: "audio", length_ticks: [ticks, Clip::SHORTEST_TICKS].max,
                 notes: [],
                 audio: Audio.new(sound: input[:sound], bpm:, start_seconds: start), envelopes: [])
      end
      private_class_method :track, :on_new_track, :clip
    end
  end
end
