# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses what the knob is to a lane that sets: "follow", the lane moves it; "trim", it raises or lowers what the
    # lane does, as a whole. Nothing heard changes: a knob that begins to trim is put where it adds nothing, and what
    # it trimmed goes into the lane when it is to follow.
    module SetFader
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        lane, parameter = home.envelope, song.parameter(home.envelope.target)
        check(home, parameter)
        return [song, words(parameter, input[:fader])] if lane.fader == input[:fader]

        changed, next_song = input[:fader] == "trim" ? trimming(song, lane, parameter) : following(song, lane)
        [Envelopes.change(next_song, lane.id) { changed }, words(parameter, input[:fader])]
      end

      def self.check(home, parameter)
        raise InvalidInput.of("no_fader", "/envelope_id", "A clip envelope has no fader; only a lane has.") if home.clip
        unless home.envelope.role == "set"
          raise InvalidInput.of("no_fader", "/envelope_id",
                                "Only a lane that sets moves its fader.")
        end

        always = home.envelope.target.setting? || home.envelope.target.song?
        if always
          raise InvalidInput.of("no_fader", "/envelope_id",
                                "The lane of #{parameter.name} always leads; it has no fader.")
        end
        return unless parameter.scale.set_only?

        raise InvalidInput.of("no_fader", "/envelope_id",
                              "#{parameter.name} is a switch or choice: nothing can raise or lower it as a whole.")
      end

      def self.words(parameter, fader)
        "let the fader of #{parameter.name} #{fader == 'trim' ? 'trim' : 'follow'} its lane"
      end

      def self.trimming(song, lane, parameter)
        neutral = parameter.scale.gain? ? 1 / Math.sqrt(parameter.scale.peak) : parameter.default
        [lane.with(fader: "trim"), song.owned(lane.target).turned(neutral)]
      end

      def self.following(song, lane)
        factor, offset = song.trim_line(lane)
        points = lane.points.map do |point|
          Point.new(tick: point.tick, value: ((point.value * factor) + offset).clamp(0.0, 1.0),
                    shape: point.shape.scaled(factor))
        end
        [lane.with(fader: "follow", points:), song]
      end
      private_class_method :check, :words, :trimming, :following
    end
  end
end
