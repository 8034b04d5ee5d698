# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets tracks sound into a group or the master. A group takes in what stands above it; a track that stands below
    # goes up.
    module SetOutput
      def self.call(song, input)
        members = members!(song, input[:track_ids])
        goal = goal!(song, input[:output])
        ring!(song, members, goal)
        [song.with(tracks: raised(song, members, goal)), "let #{words(members)} sound into #{goal.name}"]
      end

      def self.goal!(song, id)
        goal = InvalidInput.under("/output") { song.track(id) }
        return goal if %w[group master].include?(goal.kind)

        raise InvalidInput.of("bad_output", "/output",
                              "#{goal.name} is a #{goal.kind} track; tracks sound into a group or the master.")
      end

      # @raise [InvalidInput] for what sounds into nothing or makes no sound
      def self.members!(song, ids)
        ids.uniq.map.with_index do |id, i|
          track = InvalidInput.under("/track_ids/#{i}") { song.track(id) }
          next track unless %w[master carrier].include?(track.kind)

          raise InvalidInput.of("bad_output", "/track_ids/#{i}",
                                "The #{track.kind} track #{track.name} cannot be put in a group.")
        end
      end

      def self.ring!(song, members, goal)
        ring = members.find { |track| song.way_out(goal).include?(track) } or return
        raise InvalidInput.of("bad_output", "/output",
                              "#{goal.name} sounds into #{ring.name}; the other way round would be a ring.")
      end

      # Members that stand under the group come right above it, with what sounds into them; all others keep their place.
      def self.raised(song, members, goal)
        low = song.tracks.index(goal)
        late = song.tracks.drop(low + 1).select { |track| song.way_out(track).intersect?(members) }
        order = (song.tracks.take(low) + late + [goal] + song.tracks.drop(low + 1)).uniq(&:id)
        order.map { |track| members.include?(track) ? track.with(output: goal.id) : track }
      end

      def self.words(members) = members.size == 1 ? members.first.name : "#{members.size} tracks"
      private_class_method :goal!, :ring!, :raised
    end
  end
end
