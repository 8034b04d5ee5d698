# frozen_string_literal: true

module KindSatchel
  module Edits
    # Places regions of another song here, with their clips and the moves in them: on a track, those of a second track
    # on the next row that holds regions, and so on. Moves of the track they were on turn to what answers there.
    # `document` is the other song's; `region_ids` name regions of it; the first of them comes to `start_tick` of
    # `track_id`. Sounds go along by their digest.
    module TakeRegions
      def self.call(song, input)
        other = InvalidInput.under("/document") { Document.load(input[:document]) }
        placed = Regions.named(other, input[:region_ids])
        Taking.new(song, other, placed, input).result
      end

      # One such edit at work.
      class Taking
        def initialize(song, other, placed, input)
          @song = song
          @other = other
          @placed = placed
          @shift = input[:start_tick] - placed.map { |one| one.region.start_tick }.min
          @goals = goals(InvalidInput.under("/track_id") { song.track(input[:track_id]) })
        end

        # @return [Array(Song, Array<Notice>)]
        def result
          graft = Transfer::Graft.new(@song, @other)
          strangers = @goals.keys.to_h { |track| [track, graft.track(track, regions: regions(track), lanes: false)] }
          travelling = Transfer::Clips.new(graft.song)
          regions = strangers.flat_map { |source, stranger| moved(stranger, @goals[source], travelling) }
          bare = without(travelling.song, strangers.values)
          done = regions.group_by do |goal, _|
            goal.id
          end.reduce(bare) { |now, (id, pairs)| Placing.drop(now, now.track(id), *pairs.map(&:last)) }
          lost = graft.lost | travelling.lost
          [done, words, [*(lost.empty? ? [] : [Carrying.lost(lost)]), *Placing.cuts(bare, done)]]
        end

        private

        def words
          names = @placed.map { |one| @other.clip(one.region.clip_id).name }.uniq
          "take #{names.first(3).join(', ')}#{' and more' if names.size > 3} over from #{@other.name}"
        end

        # The track each comes to.
        def goals(first)
          rows = @song.tracks.select(&:holds_regions?)
          place = rows.index { |row| row.id == first.id } or
            raise InvalidInput.of("no_regions_here", "/track_id",
                                  "#{first.name} is a #{first.kind} track and holds no regions.")
          sources = @other.tracks.select { |track| regions(track).any? }
          sources.each_with_index.to_h { |source, i| [source, fitting!(rows[place + i], source)] }
        end

        def fitting!(goal, source)
          unless goal
            raise InvalidInput.of("no_track", "/track_id",
                                  "There is no track to take what lies on #{source.name}.")
          end

          misfit = regions(source).map do |region|
            @other.clip(region.clip_id)
          end.find { |clip| !goal.fits?(clip) } or return goal
          raise InvalidInput.of("wrong_kind", "/track_id",
                                "#{goal.name} takes no clip of #{misfit.kind}, and #{misfit.name} is one.")
        end

        def regions(track)
          ids = @placed.select { |one| one.track.id == track.id }
          ids.map(&:region)
        end

        def moved(stranger, goal, travelling)
          stranger.regions.map { |region| [goal, turned(region, stranger, goal, travelling)] }
        end

        def turned(region, stranger, goal, travelling)
          before = travelling.song.clip(region.clip_id)
          clip_id = travelling.on(region.clip_id, stranger, travelling.song.track(goal.id), alone: true)
          region.onto(before, travelling.song.clip(clip_id)).with(start_tick: region.start_tick + @shift)
        end

        def without(song, strangers)
          ids = strangers.map(&:id)
          song.with(tracks: song.tracks.reject { |track| ids.include?(track.id) })
        end
      end
      private_constant :Taking
    end
  end
end
