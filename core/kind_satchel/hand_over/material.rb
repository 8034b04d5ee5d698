# frozen_string_literal: true

module KindSatchel
  module HandOver
    # What differs in two states of one song besides its parameters, by kind and place: notes, sounds and the regions
    # that hold them, devices and their order, where tracks sound, how long the song is. Mute and solo are aside.
    class Material
      NOTE = %w[start_tick end_tick pitch velocity].freeze
      # Of a sound: where it is played, and how.
      SOUND = %w[start_tick end_tick sound into_seconds rate rates stretched backwards].freeze

      # @param now [Song]
      # @param other [Song]
      # @param called [String] what the other state is called
      def initialize(now, other, called)
        @now = now
        @other = other
        @called = called
      end

      # @return [Array<String>] in words; empty where nothing of it differs
      def words
        [*length, *owners_words("track", :tracks), *owners_words("clip", :clips), *both_tracks.flat_map do |now, other|
          track(now, other)
        end, *clips]
      end

      private

      def length
        return [] if @now.length_ticks == @other.length_ticks

        ["it is #{@other.length_ticks > @now.length_ticks ? 'longer' : 'shorter'} in #{@called}, to " \
         "#{@other.meters.text(@other.length_ticks)}"]
      end

      # Tracks and clips that only one of the two has.
      def owners_words(word, kind)
        now, other = [@now, @other].map { |song| kind == :tracks ? song.tracks : song.clips.values }
        gone = other.reject do |one|
          now.any? { |two| two.id == one.id }
        end.map { |one| "#{word} #{one.name} is only in #{@called}" }
        gone + now.reject do |one|
          other.any? { |two| two.id == one.id }
        end.map { |one| "#{word} #{one.name} is not in #{@called}" }
      end

      def both_tracks
        @now.tracks.filter_map { |track| @other.directory.tracks[track.id]&.then { |other| [track, other] } }
      end

      def track(now, other)
        heard = [@now, @other].map { |song| events(song).fetch(now.id, []) }
        notes, sounds = %w[note audio].map { |kind| heard.map { |list| list.select { |event| event["kind"] == kind } } }
        found = [*notes(now, *notes), *sounds(now, *sounds)]
        found.concat(regions(now, other)) if found.any?
        found + chain(now.name, now, other) + output(now, other)
      end

      # By track, the notes and sounds of the whole song.
      def events(song)
        @events ||= {}.compare_by_identity
        @events[song] ||= Heard::Events.new(song).in_range(0, song.length_ticks).group_by { |event| event["track_id"] }
      end

      # What stands at one place with one pitch is one note; of the others, those alike in all but their place were
      # moved.
      def notes(track, now, other)
        lists = [now, other].map { |list| list.map { |event| event.values_at(*NOTE) } }
        gone, come = without(*lists), without(*lists.reverse)
        changed = pairs(gone, come) { |start, _, pitch, _| [start, pitch] }
        moved = pairs(gone, come) { |start, finish, pitch, velocity| [finish - start, pitch, velocity] }
        counts = [*loudness(changed), [moved.size, "elsewhere"], [come.size, "only in #{@called}"],
                  [gone.size, "not in #{@called}"]].reject { |count, _| count.zero? }
        return [] if counts.empty?

        first = [*changed.flatten(1), *moved.flatten(1), *gone, *come].map(&:first).min
        ["#{track.name}: #{counts.map do |count, words|
          "#{count} #{count == 1 ? 'note' : 'notes'} #{words}"
        end.join(', ')}, first at #{place(first)}"]
      end

      # How many of the notes that stayed in their places are of another velocity, or of another length alone.
      def loudness(changed)
        found = changed.map { |(*, one), (*, two)| two <=> one }.tally
        [[found.fetch(1, 0), "louder"], [found.fetch(-1, 0), "softer"], [found.fetch(0, 0), "of another length"]]
      end

      def place(tick) = @now.meters.text(tick.round)

      # What one list has more often than the other.
      def without(one, other)
        left = other.tally
        one.reject { |entry| left.fetch(entry, 0).positive? && left[entry] -= 1 }
      end

      # Pairs of what is alike by a key; taken out of both lists.
      def pairs(gone, come)
        waiting = come.group_by { |entry| yield(*entry) }
        found = gone.filter_map do |entry|
          other = waiting[yield(*entry)]&.shift
          [entry, other] if other
        end
        found.each do |one, two|
          gone.delete_at(gone.index(one))
          come.delete_at(come.index(two))
        end
        found
      end

      def sounds(track, now, other)
        lists = [now, other].map { |list| list.map { |event| event.values_at(*SOUND) } }
        gone, come = without(*lists), without(*lists.reverse)
        return [] if gone.empty? && come.empty?

        first = (gone + come).map(&:first).min
        count = [gone.size, come.size].max
        ["#{track.name}: #{count == 1 ? 'a sound is' : "#{count} sounds are"} played otherwise in #{@called}, first " \
         "at #{place(first)}"]
      end

      # Where they lie, only told where it is heard.
      def regions(now, other)
        gone, come = [now, other].map do |track|
          track.regions.reject(&:muted).map { |one| [one.start_tick, one.length_ticks, one.clip_id] }
        end
        gone, come = gone - come, come - gone
        return [] if gone.empty? && come.empty?

        places = (gone + come).map(&:first)
        ["#{now.name}: its regions lie otherwise in #{@called}, first at #{place(places.min)}"]
      end

      def chain(name, now, other)
        lists = [now, other].map { |owner| owner.devices.map { |device| [device.id, device.type, device.sound] } }
        return [] if lists[0] == lists[1]

        gone, come = lists[0] - lists[1], lists[1] - lists[0]
        return ["#{name}: its devices stand in another order in #{@called}"] if gone.empty? && come.empty?

        [*named(gone).map { |device| "#{name}: #{device} is not in #{@called}, or another" },
         *named(come - gone.select do |id,|
           come.any? { |one,| one == id }
         end).map { |device| "#{name}: #{device} is only in #{@called}, or another" }].uniq
      end

      def named(list) = list.map { |_, type, _| Devices::TYPES.fetch(type).name }

      def output(now, other)
        return [] if now.output == other.output

        goal = @other.directory.tracks[other.output]&.name || "nothing"
        ["#{now.name}: its output goes to #{goal} in #{@called}"]
      end

      def clips
        @now.clips.each_value.flat_map do |clip|
          other = @other.clips[clip.id] or next []
          otherwise = clip.devices.any? && other.devices.any? && clip.tails != other.tails
          tails = otherwise ? ["#{clip.name}: its tails #{other.tails} in #{@called}"] : []
          chain(clip.name, clip, other) + tails
        end
      end
    end
  end
end
