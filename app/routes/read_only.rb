# frozen_string_literal: true

# Where a song is only shown, whatever would change anything is refused; what is only asked by POST is answered.
module ReadOnly
  OF_A_SONG = /preview|listening|places_seen|baking|baked_curves|hand_over|hand_overs|mixdown/
  ASKED = %r{\A/api/(songs/\d+/(#{OF_A_SONG})|hand_overs/.*|moves/near|jobs/.*)\z}

  def self.registered(app)
    app.before do
      next if !settings.read_only || request.get? || request.head? || ASKED.match?(request.path)

      halt_with(403, "only_shown", "This song is only shown here, so nothing was changed.")
    end
  end
end
