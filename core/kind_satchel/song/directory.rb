# frozen_string_literal: true

module KindSatchel
  # Finds things of one song by id. Built on first use and kept with the song value.
  class Directory
    # Where an envelope lives: exactly one of `clip` and `track` is set.
    Home = Struct.new(:envelope, :clip, :track)
    # A region on the track that holds it; `place` is the track's place in the song, from the top.
    Placed = Struct.new(:region, :track, :place)

    attr_reader :tracks, :envelopes, :regions, :regions_of_clip, :carriers

    def initialize(song)
      @tracks = song.tracks.to_h { |track| [track.id, track] }
      @envelopes = {}
      @regions = {}
      @regions_of_clip = Hash.new { |_, _| [].freeze }
      @carriers = Hash.new { |_, _| [].freeze }
      song.tracks.each_with_index { |track, place| add_track(track, place) }
      song.clips.each_value { |clip| add_clip(clip) }
    end

    def track(id) = find(tracks, id, "track")
    def envelope(id) = find(envelopes, id, "envelope")
    def region(id) = find(regions, id, "region")

    private

    def find(table, id, word)
      table.fetch(id) { raise NotFound.of("unknown_#{word}", "/#{word}_id", "There is no #{word} #{id.inspect} in this song.") }
    end

    def add_track(track, place)
      track.lanes.each { |lane| @envelopes[lane.id] = Home.new(lane, nil, track) }
      track.regions.each do |region|
        placed = Placed.new(region, track, place)
        @regions[region.id] = placed
        (@regions_of_clip.key?(region.clip_id) ? @regions_of_clip[region.clip_id] : @regions_of_clip[region.clip_id] = []) << placed
      end
    end

    def add_clip(clip)
      clip.envelopes.each do |envelope|
        @envelopes[envelope.id] = Home.new(envelope, clip, nil)
        target = envelope.target
        (@carriers.key?(target) ? @carriers[target] : @carriers[target] = []) << [clip, envelope]
      end
    end
  end
end
