# frozen_string_literal: true

module KindSatchel
  # A song whose moves rest, all or some, so that one hears it dry: what rests is as if it were switched off. `owners`
  # say whose moves: "song" for all but those of the tempo, "clip/mooring" for a clip's, "track/rope-bass" for the
  # lanes of a track, what moves its own parameters, and the moves of clips that lie nowhere else.
  #
  # @example
  #   AtRest.new(song, ["clip/mooring"]).ids.size #=> 1
  class AtRest
    ALL = "song"

    # @return [String] where the moves of a track or clip rest, in words that lists of {Listening} hold
    # @raise [NotFound] for one that is not there
    # @raise [InvalidInput] for what is neither
    def self.owner!(song, owner)
      case owner.split("/", 2)
      in [ALL] then owner
      in ["track", id] then song.track(id) && owner
      in ["clip", id] then song.clip(id) && owner
      else raise InvalidInput.of("bad_owner", "/rest", "Moves rest of the song, of track/..., or of clip/....")
      end
    end

    # @param owners [Array<String>] those that are no longer there are left out
    def initialize(song, owners)
      @whole = song
      @all = owners.include?(ALL)
      @tracks, @clips = %w[track clip].map do |kind|
        owners.filter_map { |owner| owner.delete_prefix("#{kind}/") if owner.start_with?("#{kind}/") }
      end
    end

    # @return [Song] itself where nothing rests
    def song
      return @whole if ids.empty?

      tracks = @whole.tracks.map { |track| rested(track, :lanes) }
      @whole.with(tracks:, clips: @whole.clips.transform_values { |clip| rested(clip, :envelopes) })
    end

    # @return [Set<String>] ids of the envelopes that rest; those that are off anyhow are not among them
    def ids
      @ids ||= @whole.directory.envelopes.each_value.filter_map do |home|
        home.envelope.id if home.envelope.on && rests?(home)
      end.to_set
    end

    private

    def rests?(home)
      return !home.envelope.target.song? if @all
      return true if home.clip ? @clips.include?(home.clip.id) : @tracks.include?(home.track.id)

      @tracks.any? && (@tracks.include?(home.envelope.target.owner_id) || (home.clip && alone?(home.clip)))
    end

    # Whether a clip lies on tracks at rest and on no other.
    def alone?(clip)
      placed = @whole.directory.regions_of_clip(clip.id)
      placed.any? && placed.all? { |one| @tracks.include?(one.track.id) }
    end

    def rested(owner, field)
      list = owner.public_send(field)
      return owner if list.none? { |one| ids.include?(one.id) }

      owner.with(field => list.map { |one| ids.include?(one.id) ? one.with(on: false) : one })
    end
  end
end
