# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes the points of an envelope from how loud something is, or from notes: of a clip, a track, or a sound of the
    # store (`of`). The envelope lies in a clip or on a lane (see {Landing}). In a clip a clip's material is followed
    # from its start on, over and over, and a track as it plays where the clip lies; on a lane all is followed
    # wherever it sounds. An envelope that follows already is made again, with what is given in place of what it was
    # made with. How loud sounds are is filled in by the app (`sounds`); see {Sources::Followed}.
    module FollowLevel
      SETTINGS = %i[of pitches tick attack_ms release_ms floor_db smooth_ms over tolerance].freeze
      # How far apart levels are looked at, in seconds.
      STEP = 0.01
      # More are not looked at; further apart then.
      MOST = 200_000
      # What is quieter is silence.
      SILENT = 1e-4
      # Where a new one that shifts runs.
      SHIFT_LIMITS = [0.0, 0.25].freeze

      def self.call(song, input)
        landing = Landing.new(song, input, "set")
        source = source(landing, input)
        followed = Followed.new(landing, source, input.fetch(:sounds, {}))
        points = followed.points
        limits = limits(landing, input)
        scale = Envelopes.scale(landing.song, landing.envelope)
        snippet = Snippet.new(role: "set", length_ticks: followed.length, points:)
        points = snippet.points_for(landing.envelope.role, scale)
        made = source.with(made: Sources::Followed.digest(points), sounded: nil)
        next_song = with_digest(landing, made) do |one|
          one.with(source: made, points:, depth: one.lfo? ? 1.0 : one.depth, **limits)
        end
        [next_song,
         "let #{next_song.parameter_name(landing.envelope.target)} #{landing.words} follow #{followed.name}",
         notices(landing, points)]
      end

      # With the digest of what it was made of, as that sounds in the song it is in.
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Envelope] with what was made
      # @return [Song]
      def self.with_digest(landing, made, &)
        id = landing.envelope.id
        song = Envelopes.change(landing.song, id, &)
        sounded = Checks::AsSounded.digest(song, song.directory.envelope(id))
        Envelopes.change(song, id) { |one| one.with(source: made.with(sounded:)) }
      end

      # The keys of the sounds that it follows.
      # @return [Array<String>]
      def self.sounds(song, input)
        of = input["of"] || input[:of] || current(song, input)&.of or return []
        return [of["sound"]] if of["sound"]

        clips = if of["clip_id"]
                  [song.clips[of["clip_id"]]]
                else
                  song.directory.tracks[of["track_id"]]&.regions.to_a.map { |region| song.clips[region.clip_id] }
                end
        clips.compact.uniq.filter_map { |clip| clip.audio&.sound }.uniq
      end

      def self.current(song, input)
        source = song.directory.envelopes[input["envelope_id"] || input[:envelope_id]]&.envelope&.source
        source if source.is_a?(Sources::Followed)
      end

      def self.source(landing, input)
        given = input.slice(*SETTINGS)
        before = landing.envelope
        return Sources::Followed.new(**Sources::Followed::PLAIN, **given) if given.key?(:of)
        return before.source.with(**given) if before.followed?

        edited = before.source.is_a?(Sources::Followed)
        words = "Say what it is to follow: a clip, a track or a sound."
        words = "It was edited by hand since; say again what it is to follow." if edited
        raise InvalidInput.of(edited ? "edited_by_hand" : "bad_request", "/of", words)
      end

      def self.limits(landing, input)
        envelope = landing.envelope
        current = landing.fresh? && envelope.role == "shift" ? SHIFT_LIMITS : envelope.limits
        scale = Envelopes.scale(landing.song, envelope)
        list = %i[low high].zip(current).map do |name, limit|
          given = input[name]
          next limit if given.nil?

          given.is_a?(Numeric) ? given : InvalidInput.under("/#{name}") { envelope.role_rules.parse(scale, given) }
        end
        list == envelope.limits ? {} : { limits: list }
      end

      def self.notices(landing, points)
        notices = [Notice.new("thinned", [landing.envelope.id], PlainText.count(points.size, "point"))]
        lost = landing.envelope.followed? || landing.fresh? ? 0 : landing.envelope.points.size
        lost.positive? ? [Notice.new("replaced", [landing.envelope.id], Envelopes.replaced(lost)), *notices] : notices
      end
      private_class_method :current, :source, :limits, :notices

      # The points, as shares.
      class Followed
        attr_reader :name

        def initialize(landing, source, sounds)
          @landing, @source, @song = landing, source, landing.song
          kind, id = source.of.first
          @clip = InvalidInput.under("/of") { @song.clip(id) } if kind == "clip_id"
          @track = InvalidInput.under("/of") { @song.track(id) } if kind == "track_id"
          @sound = id if kind == "sound"
          @levels = Follow::Levels.new(@song, sounds, source.pitches)
          @name = @clip&.name || @track&.name || "a sound"
          heard!(sounds)
        end

        # @return [Integer] ticks that they cover
        def length
          @length ||= if inside?
                        @landing.envelope.own_length_ticks || @landing.clip.length_ticks
                      else
                        [@song.length_ticks,
                         1].max
                      end
        end

        # @return [Array<Point>]
        # @raise [InvalidInput] for silence
        def points
          ticks = (0..(length / step)).map { |i| (i * step).round }.push(length).uniq
          levels = levels_at(ticks)
          if levels.max.to_f <= SILENT
            raise InvalidInput.of("silent", "/of",
                                  "#{@name} is silent there, so there is nothing to follow.")
          end

          shares = follower.shares(levels, @seconds, loops: inside?)
          shares[-1] = shares[0] if inside? && loops_evenly?
          places = Thinning.keep(ticks, shares, @source.tolerance)
          places.map { |place| Point.new(tick: ticks[place], value: shares[place], shape: Shapes::Straight::PLAIN) }
        end

        private

        # Whether it lies in a clip; followed there from the start of the material.
        def inside? = !@landing.clip.nil?
        def loops_evenly? = @clip && (length % @clip.length_ticks).zero?

        def audio?
          @sound || [@clip, *@track&.regions&.map { |region| @song.clip(region.clip_id) }].compact.any?(&:audio)
        end

        def heard!(sounds)
          wanted = FollowLevel.sounds(@song, { of: @source.of })
          lost = wanted.reject { |key| sounds.key?(key) }
          return unless lost.any?

          raise InvalidInput.of("no_energy", "/of",
                                "The sound of #{@name} is not here, so it cannot be followed.")
        end

        # Where its own time begins.
        def place
          inside? ? Checks::AsSounded.base(@song, Directory::Home.new(@landing.envelope, nil, @landing.clip)) : 0
        end

        # Ticks from one look to the next.
        def step
          @step ||= begin
            pace = @song.tempo.bpm_at(place) * Timing::PPQ / 60
            ticks = [STEP * pace, 1.0, length / MOST.to_f].max
            @seconds = ticks / pace
            ticks
          end
        end

        def levels_at(ticks)
          return @levels.of_sound(@sound, inside? ? 0 : @source.tick, ticks) if @sound
          return @levels.of_tracks(@track ? [@track] : @song.tracks, @clip, ticks) unless inside?
          return under_clip(ticks) unless @clip

          once = ticks.select { |tick| tick < @clip.length_ticks }
          found = @levels.of_clip(@clip, once)
          return found if once.size == ticks.size

          pass = @clip.length_ticks
          ticks.map { |tick| found[once.bsearch_index { |one| one >= tick % pass } || -1] }
        end

        # What the track plays where the clip lies, the first time that it plays something there.
        def under_clip(ticks)
          placed = @song.directory.regions_of_clip(@landing.clip.id)
          regions = placed.map(&:region).reject(&:muted).sort_by(&:start_tick)
          found = [0.0] * ticks.size
          regions.each do |region|
            zero = region.start_tick - region.offset_ticks
            found = @levels.of_tracks([@track], nil, ticks.map { |tick| [zero + tick, 0].max })
            found[-1] = found[-2] if found.size > 1
            break if found.max > SILENT
          end
          found
        end

        def follower
          floor = audio? ? @source.floor_db.to_f : nil
          Follow::Follower.new(attack: @source.attack_ms / 1000.0, release: @source.release_ms / 1000.0,
                               smooth: @source.smooth_ms / 1000.0,
                               floor:, over: @source.over)
        end
      end
    end
  end
end
