# frozen_string_literal: true

module KindSatchel
  # The open song document: plain data, versioned, in a fixed order, so that equal songs are equal files.
  # Its form is given by schemas/song.json; reading it here checks what a schema cannot say.
  module Document
    FORMAT = "kind-satchel-song"
    VERSION = 4

    module_function

    # @return [Hash] ready for JSON
    def dump(song)
      { "format" => FORMAT, "version" => VERSION, **Records.head(song),
        "tracks" => song.tracks.map { |track| dump_track(track) },
        "clips" => song.clips.values.sort_by { |clip| Ids.order(clip.id) }.map { |clip| dump_clip(clip) } }
    end

    # @example
    #   Document.load(Document.dump(song)) == song #=> true
    # @param record [Hash] data that fits schemas/song.json
    # @raise [InvalidInput] with every fault: order, ranges, overlaps, ids that name nothing
    def load(record)
      faults = Faults.new
      head = faults.within("") { Records.read_head(record) }
      tracks = list(record["tracks"], "/tracks", faults) { |entry| load_track(entry) }
      clips = list(record["clips"], "/clips", faults) { |entry| load_clip(entry) }
      faults.raise_any
      song = Song.new(**head, tracks:, clips: clips.to_h { |clip| [clip.id, clip] })
      song = song.with(next_id: [song.next_id, Ids.past(song)].max)
      References.new(song, clips).check
      Integrity.check(nil, song)
      song
    end

    def dump_track(track)
      Records.track(track).merge("lanes" => track.lanes.map { |lane| Records.envelope(lane) },
                                 "regions" => track.regions.map { |region| Records.region(region) })
    end

    # Lanes, regions and the track itself are read whatever is wrong with the others.
    def load_track(record)
      faults = Faults.new
      lanes = read(record["lanes"], "/lanes", faults) { |entry| Records.read_envelope(entry) }
      regions = read(record["regions"], "/regions", faults) { |entry| Records.read_region(entry) }
      track = faults.within("") { Records.read_track(record, lanes, regions) }
      faults.raise_any
      track
    end

    def dump_clip(clip)
      Records.clip(clip).merge("envelopes" => clip.envelopes.map { |entry| Records.envelope(entry) })
    end

    def load_clip(record)
      faults = Faults.new
      envelopes = read(record["envelopes"], "/envelopes", faults) { |entry| Records.read_envelope(entry) }
      clip = faults.within("") { Records.read_clip(record, envelopes) }
      faults.raise_any
      clip
    end

    # What can be read; the faults of the rest are gathered.
    def read(entries, path, faults, &) = list(entries, path, faults, &).compact

    def list(entries, path, faults)
      entries.each_with_index.map { |entry, i| faults.within("#{path}/#{i}") { yield entry } unless faults.full? }
    end

    private_class_method :dump_track, :load_track, :dump_clip, :load_clip, :read, :list

    # Checks that every id of a song names something, once, and that envelopes act on what may be moved.
    class References
      def initialize(song, clips)
        @song = song
        @clips = clips
        @faults = Faults.new
      end

      def check
        unique(@song.tracks, "/tracks", "track")
        unique(@clips, "/clips", "clip")
        check_master
        @song.tracks.each_with_index { |track, i| check_track(track, "/tracks/#{i}") }
        @song.clips.each_value.with_index { |clip, i| check_envelopes(clip.envelopes, "/clips/#{i}/envelopes") }
        check_one_track
        check_shared_ids
        @faults.raise_any
      end

      private

      def check_master
        masters = @song.tracks.select { |track| track.kind == "master" }
        return if masters.size == 1 && @song.tracks.last.kind == "master"

        @faults.add("no_master", "/tracks", "A song has one master, and it stands last.")
      end

      def check_track(track, path)
        check_envelopes(track.lanes, "#{path}/lanes")
        check_output(track, path)
        track.regions.each_with_index { |region, i| check_region(track, region, "#{path}/regions/#{i}/clip_id") }
      end

      def check_region(track, region, path)
        clip = @song.clips[region.clip_id]
        return @faults.add("unknown_clip", path, "There is no clip #{region.clip_id.inspect}.") unless clip

        return if track.fits?(clip)

        return unless track.holds_regions?

        @faults.add("wrong_kind", path,
                    "#{clip.name} is a clip of #{clip.kind}, #{track.name} a track of #{track.kind}.")
      end

      # Outputs lead to a group or the master, and only downwards, so that no chain of outputs is a ring.
      def check_output(track, path)
        return if track.kind == "master" && track.output.nil?

        place = @song.tracks.index { |other| other.id == track.output }
        return if place && place > @song.tracks.index(track) && %w[group master].include?(@song.tracks[place].kind)

        @faults.add("bad_output", "#{path}/output",
                    "#{track.name} outputs to a group or the master further down, not #{track.output.inspect}.")
      end

      # What points at nothing is kept, and does nothing.
      def check_envelopes(envelopes, path)
        envelopes.each_with_index do |envelope, i|
          parameter = @song.parameter?(envelope.target) or next
          @faults.within("#{path}/#{i}/target") do
            parameter.automatable!("")
            parameter.role_fits!(envelope.role, "")
          end
        end
      end

      # A clip with effects of its own sounds on one track.
      def check_one_track
        @song.clips.each_value.with_index do |clip, i|
          next if clip.devices.empty? || @song.directory.regions_of_clip(clip.id).map do |placed|
            placed.track.id
          end.uniq.size < 2

          @faults.add("two_tracks", "/clips/#{i}/devices",
                      "#{clip.name} has effects of its own, so its regions lie on one track; they lie on several.")
        end
      end

      def check_shared_ids
        unique(@song.tracks.flat_map(&:regions), "", "region")
        unique(@song.tracks.flat_map(&:lanes) + @song.clips.values.flat_map(&:envelopes), "", "envelope")
      end

      def unique(things, path, word)
        things.map(&:id).tally.each do |id, count|
          @faults.add("duplicate_id", path, "#{count} #{word}s share the id #{id.inspect}.") if count > 1
        end
      end
    end
  end

  # Ids made by the song: a word and a number.
  module Ids
    # Sorts ids as people would: by word, then by number.
    def self.order(id)
      match = /\A(.*?)(\d*)\z/.match(id)
      [match[1], match[2].to_i, id]
    end

    # The first number that no id of a song ends with: a new id of a lower one could be there already.
    def self.past(song)
      ids = [*song.directory.tracks.keys, *song.directory.regions.keys, *song.directory.envelopes.keys,
             *song.clips.keys, *song.markers.map(&:id)]
      ids.filter_map { |id| id[/-(\d{1,8})\z/, 1]&.to_i }.max.to_i + 1
    end
  end
end
