# frozen_string_literal: true

module KindSatchel
  module Edits
    # Repeats a clip's move over so many loops, each a little different, so that the loop does not wear thin. From the
    # first repeat to the last the change grows evenly: to `level` more, `depth` times as deep (about nothing; of a
    # move that sets, about its foot), `later_ticks` later, `faster` times as fast. Every second repeat may be turned
    # (`every_second`: backwards, over, or left out); `scatter` adds chance to level and depth, the same for the same
    # `seed`. The move gets a length of its own: all repeats.
    #
    # As `driven` the move stays as it is, and an envelope beside it moves its depth from repeat to repeat.
    #
    # Regions of the clip that follow one another without a gap are counted on, so that the repeats are heard one
    # after the other (see {CountedOn}); how many of them are heard, and where, is told. What would lead past what the
    # role can hold is made less for all repeats alike, and that is told; where nothing is left of it, it is refused.
    module VaryMove
      MOST_REPEATS = 64
      WAYS = %w[points driven].freeze
      EVERY_SECOND = %w[same backwards over left_out].freeze

      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        unless home.clip
          raise InvalidInput.of("no_clip", "/envelope_id",
                                "A lane repeats nothing; a move in a clip can be varied.")
        end

        input[:as] == "driven" ? driven(song, home, input) : drawn(song, home, input)
      end

      # Other points in each repeat.
      def self.drawn(song, home, input)
        points!(home.envelope)
        repeats = Repeats.new(song, home, input)
        points, length = repeats.points, input[:repeats] * Repeats.loop_ticks(home)
        next_song = Envelopes.change(song, home.envelope.id) do |one|
          one.with(points:, clock: "own_length", own_length_ticks: length)
        end
        counted = CountedOn.new(next_song, home.clip.id, home.envelope.id, Repeats.loop_ticks(home), input[:repeats])
        [counted.song, "vary #{Envelopes.name(song, home.envelope.id)} over #{input[:repeats]} loops",
         [Notice.new("thinned", [home.envelope.id], PlainText.count(points.size, "point")),
          *less(home, repeats.strength), counted.tell]]
      end

      # @raise [InvalidInput] for moves without points
      def self.points!(envelope)
        if envelope.lfo?
          raise InvalidInput.of("lfo", "/envelope_id",
                                "An LFO has no points to vary; vary its depth, or turn it into points first.")
        end
        return unless envelope.points.empty?

        raise InvalidInput.of("empty", "/envelope_id",
                              "There is nothing to vary: the envelope has no points.")
      end

      # What of the change is left where all of it has no room.
      def self.less(home, strength)
        return [] if strength > 1 - 1e-9

        [Notice.new("limited", [home.envelope.id],
                    "there is room for #{Units.short(strength * 100)} % of that change; so much is made in all loops " \
                    "alike")]
      end

      # Its depth held at another value in each repeat.
      def self.driven(song, home, input)
        envelope, clip = home.envelope, home.clip
        address = Address.setting(envelope.id, "depth")
        EmbedEnvelope.taken!(song, clip, address, "set")
        pass, count = Repeats.loop_ticks(home), input[:repeats]
        strength = driven_strength(envelope, input, count)
        depths = Array.new(count) { |i| (envelope.depth * Repeats.depth(input, i, count, strength)).clamp(0.0, 1.0) }
        points = depths.each_with_index.map do |depth, i|
          Point.new(tick: i * pass, value: depth, shape: Shapes::Hold::PLAIN)
        end
        made = Envelope.fresh(id: "envelope-#{song.next_id}", target: address, points:,
                              clock: "own_length").with(own_length_ticks: count * pass)
        next_song = song.with(next_id: song.next_id + 1).with_clip(clip.with(envelopes: [*clip.envelopes, made]))
        counted = CountedOn.new(next_song, clip.id, made.id, pass, count)
        [counted.song, "vary the depth of #{Envelopes.name(song, envelope.id)} over #{count} loops",
         [*less(home, strength), counted.tell]]
      end

      # A depth lies between 0 and 100 %.
      def self.driven_strength(envelope, input, count)
        least, most = (0...count).map { |i| Repeats.change(input, i, count) }.minmax
        room = (1.0 / [envelope.depth, 1e-9].max) - 1
        strength = [1.0, most > room ? room / most : 1.0, least < -1 ? -1 / least : 1.0].min
        Repeats.strength!(strength, "It is at its full depth of 100 % and cannot go deeper.", "/depth")
      end
      private_class_method :driven, :driven_strength, :less
    end
  end
end
