# frozen_string_literal: true

module KindSatchel
  module Edits
    # Puts an envelope as it once was into its clip or on its track: in the place of the one with its id, or of what
    # moves the same parameter in the same role there. All of it stands in the inputs, so it needs nothing of the
    # version it came from.
    module TakeEnvelope
      OWNER = %r{\A(clip|track)/(.+)\z}

      def self.call(song, input)
        kind, id = OWNER.match(input[:owner])&.captures
        raise InvalidInput.of("bad_owner", "/owner", "Say whose it is: clip/ID or track/ID.") unless kind

        envelope = InvalidInput.under("/envelope") { Records.read_envelope(input[:envelope]) }
        owner = kind == "clip" ? song.clip(id) : song.track(id)
        free!(song, envelope, owner)
        list = owner.is_a?(Clip) ? owner.envelopes : owner.lanes
        place = list.index { |one| same?(one, envelope) } || list.size
        rest = list.reject { |one| same?(one, envelope) }
        kept = rest.insert([place, rest.size].min, envelope)
        next_song = song.with_owner(owner.is_a?(Clip) ? owner.with(envelopes: kept) : owner.with(lanes: kept))
        [next_song,
         "take #{song.parameter_name(envelope.target)} #{owner.is_a?(Clip) ? 'in' : 'on'} #{owner.name} back"]
      end

      def self.same?(one, other) = one.id == other.id || (one.target == other.target && one.role == other.role)

      # Its id may be another envelope's by now.
      def self.free!(song, envelope, owner)
        home = song.directory.envelopes[envelope.id] or return
        return if home.owner.id == owner.id

        raise InvalidInput.of("taken_id", "/envelope/id", "#{envelope.id} lies in #{home.owner.name} now.")
      end
      private_class_method :same?, :free!
    end
  end
end
