# frozen_string_literal: true

module KindSatchel
  module Edits
    # Chooses how an envelope acts: set, shift or scale. `keep` says what of it stays: "heard", its points are
    # converted against what is really beneath it (see {Conversion::RoleChange}), and the largest difference is said;
    # "drawing", the line stays where it was drawn and means something else.
    module SetRole
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        envelope, role = home.envelope, input[:role]
        parameter = song.parameter(envelope.target)
        parameter.role_fits!(role, "/role")
        words = "let the #{parameter.name} envelope #{role}"
        return [song, words] if envelope.role == role

        free!(song, home, role)
        if input[:keep] == "drawing" || envelope.lfo?
          return [Envelopes.change(song, envelope.id) do
            drawn(envelope, role)
          end, words]
        end

        Conversion::Moved.refuse(song, envelope, "/envelope_id")
        changed = Conversion::RoleChange.call(song, home, role)
        [changed.song, words, LayOut.notices(changed)]
      end

      # One envelope of each role to a place.
      def self.free!(song, home, role)
        place = home.clip || home.track
        list = home.clip ? home.clip.envelopes : home.track.lanes
        return unless list.any? { |other| other.target == home.envelope.target && other.role == role }

        name = song.parameter(home.envelope.target).name
        raise InvalidInput.of("already_there", "/role",
                              "#{place.name} already holds an envelope that #{role}s #{name}.")
      end

      # The same line over the whole height of the strip.
      def self.drawn(envelope, role)
        from, to = [envelope.role, role].map { |id| Roles.full(id) }
        limits = envelope.limits.map { |limit| to[0] + ((limit - from[0]) * (to[1] - to[0]) / (from[1] - from[0])) }
        envelope.with(role:, limits:, fader: "follow", points: envelope.points.map do |point|
          Snippet.shared(point, envelope.role, role)
        end)
      end
      private_class_method :free!, :drawn
    end
  end
end
