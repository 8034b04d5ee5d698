# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses how an envelope acts: set, shift or scale. Its points are converted so that over the resting knob
    # they would give what they gave before, as far as the new role reaches.
    module SetRole
      def self.call(song, input)
        envelope = song.directory.envelope(input[:envelope_id]).envelope
        parameter = song.parameter(envelope.target)
        Moves.role_fits!(parameter, input[:role], "/role")
        next_song = Moves.change(song, envelope.id) { converted(envelope, input[:role], parameter.scale, song.knob(envelope.target)) }
        [next_song, "let the #{parameter.name} envelope #{input[:role]}"]
      end

      def self.converted(envelope, role, scale, knob)
        return envelope if envelope.role == role

        old, new = envelope.role_rules, Roles::ALL.fetch(role)
        points = envelope.points.map do |point|
          wanted = scale.heard(old.apply(scale, knob, point.value))
          point.with(value: new.amount(scale, knob, wanted).clamp(new.values.min.to_f, new.values.max.to_f))
        end
        envelope.with(role:, points:)
      end
      private_class_method :converted
    end
  end
end
