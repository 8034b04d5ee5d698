# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses how an envelope acts: set, shift or scale. `keep` says what of it stays: "heard", its points are converted so
    # that over the resting knob they give what they gave before, as far as the new role reaches; "drawing", the line stays
    # where it was drawn and means something else.
    module SetRole
      def self.call(song, input)
        envelope = song.directory.envelope(input[:envelope_id]).envelope
        parameter = song.parameter(envelope.target)
        Moves.role_fits!(parameter, input[:role], "/role")
        next_song = Moves.change(song, envelope.id) do
          input[:keep] == "drawing" ? drawn(envelope, input[:role]) : converted(envelope, input[:role], parameter.scale, song.knob(envelope.target))
        end
        [next_song, "let the #{parameter.name} envelope #{input[:role]}"]
      end

      # The same line over the whole height of the strip.
      def self.drawn(envelope, role)
        envelope.with(role:, fader: "follow", points: envelope.points.map { |point| Snippet.shared(point, envelope.role, role) })
      end

      def self.converted(envelope, role, scale, knob)
        return envelope if envelope.role == role

        old, new = envelope.role_rules, Roles::ALL.fetch(role)
        points = envelope.points.map do |point|
          wanted = scale.heard(old.apply(scale, knob, point.value))
          point.with(value: new.amount(scale, knob, wanted).clamp(new.values.min.to_f, new.values.max.to_f))
        end
        envelope.with(role:, fader: "follow", points:)
      end
      private_class_method :drawn, :converted
    end
  end
end
