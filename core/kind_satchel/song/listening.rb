# frozen_string_literal: true

module KindSatchel
  # What somebody listens to: tracks muted and soloed by hand, by id, and whose moves rest, see {AtRest}. It is no part
  # of the song: no envelope moves it, no document holds it, undo does not know of it. (The mute of a channel is a
  # parameter, and another thing.)
  #
  # @example
  #   Listening::ALL.with_track(song, "rope-bass", muted: true).silent(song) #=> ["rope-bass"]
  class Listening < Value.of(:muted, :soloed, :resting)
    def initialize(resting: [], **fields) = super
    def check = [muted, soloed, resting].each(&:freeze)

    # Nobody muted, nobody soloed: all is heard.
    ALL = new(muted: [], soloed: [])

    # @param track_id [String]
    # @param muted [Boolean, nil] nil leaves it as it is
    # @param soloed [Boolean, nil] likewise
    # @return [Listening]
    # @raise [NotFound] for a track that is not there
    # @raise [InvalidInput] for a return or master soloed, or when nothing is asked
    def with_track(song, track_id, muted: nil, soloed: nil)
      if muted.nil? && soloed.nil?
        raise InvalidInput.of("nothing_asked", "", "Say whether the track is muted or soloed.")
      end

      track = song.track(track_id)
      solo!(track) if soloed
      with(muted: listed(self.muted, track_id, muted), soloed: listed(self.soloed, track_id, soloed))
    end

    # Lets moves rest, or brings them back; bringing those of the song back brings all back.
    # @param owner [String] "song", "track/rope-bass", "clip/mooring"
    # @return [Listening]
    # @raise [NotFound], [InvalidInput]
    def with_rest(song, owner, rests)
      return with(resting: []) if owner == AtRest::ALL && !rests

      with(resting: listed(resting, AtRest.owner!(song, owner), rests))
    end

    # The song as it is heard while moves rest.
    # @return [Song] itself where none does
    def at_rest(song) = resting.empty? ? song : song.memo([:at_rest, resting]) { AtRest.new(song, resting).song }

    # @return [Array<String>] ids of the envelopes that rest
    def rested(song) = resting.empty? ? [] : AtRest.new(song, resting).ids.to_a

    # Ids of tracks that are not heard for being muted or because others are soloed. What a muted group takes in is
    # silent with it; a soloed track is heard with all it goes through and takes in, and with the returns.
    # @return [Array<String>] in the order of the tracks
    def silent(song)
      solos = song.tracks.select { |track| soloed.include?(track.id) }
      song.tracks.select { |track| muted?(song, track) || (solos.any? && !solo_heard?(song, track, solos)) }.map(&:id)
    end

    private

    def solo!(track)
      return unless %w[return master].include?(track.kind)

      raise InvalidInput.of("no_solo", "/soloed", "#{track.name} is a #{track.kind}; tracks and groups are soloed.")
    end

    def listed(ids, id, wanted)
      return ids if wanted.nil?

      wanted ? (ids | [id]).sort : ids - [id]
    end

    def muted?(song, track) = song.way_out(track).any? { |one| muted.include?(one.id) }

    def solo_heard?(song, track, solos)
      track.kind == "return" || song.way_out(track).any? { |one| solos.include?(one) } || solos.any? do |solo|
        song.way_out(solo).include?(track)
      end
    end
  end
end
