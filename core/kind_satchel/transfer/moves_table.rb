# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Which moves of a clip or track come to another, and which do not: matched by parameter.
    class MovesTable
      # One move: `envelope` where it is, `target` the address it would move (nil without an answer), `replaces` the
      # envelope that stands there.
      Row = Struct.new(:envelope, :target, :replaces)

      # @param source [Clip, Track] whose moves are copied
      # @param goal [Clip, Track] of the same sort
      # @raise [InvalidInput]
      def initialize(song, source, goal)
        @song = song
        @source = source
        @goal = goal
        return unless source.id == goal.id

        raise InvalidInput.of("same_place", "",
                              "Moves are copied to another place than where they are.")
      end

      # @return [Array<Row>]
      def rows = @rows ||= own(@source).map { |envelope| row(envelope) }

      # @return [Array<Hash>] plain data, a row for each move
      def to_record
        rows.map do |row|
          { "envelope_id" => row.envelope.id, "name" => words(row.envelope.target),
            "points" => row.envelope.points.size,
            "target" => row.target&.to_s, "target_name" => row.target && words(row.target),
            "replaces" => !row.replaces.nil? }
        end
      end

      # @return [Song]
      # @raise [InvalidInput] when nothing matches
      def copied
        rows = self.rows.select(&:target)
        if rows.empty?
          raise InvalidInput.of("nothing_matches", "",
                                "#{@goal.name} has no parameter that answers to a move of #{@source.name}.")
        end

        gone = with_settings(rows.filter_map(&:replaces))
        ids = rows.each_with_index.to_h { |row, i| [row.envelope.id, "envelope-#{@song.next_id + i}"] }
        added = Copies.renamed(rows.map { |row| row.envelope.with(target: row.target) }, ids)
        placed(@song.with(next_id: @song.next_id + added.size), (own(@goal) - gone) + added)
      end

      private

      # Envelopes, and all that is drawn beside them for their settings.
      def with_settings(envelopes)
        list = envelopes.dup
        list.each do |one|
          list.concat(own(@goal).select { |other| other.target.setting? && other.target.device_id == one.id } - list)
        end
      end

      def own(place) = place.is_a?(Clip) ? place.envelopes : place.lanes

      def placed(song, envelopes)
        @goal.is_a?(Clip) ? song.with_clip(@goal.with(envelopes:)) : song.with_track(@goal.with(lanes: envelopes))
      end

      def row(envelope)
        target = answering(envelope.target)
        Row.new(envelope, target, target && own(@goal).find do |other|
          other.target == target && other.role == envelope.role
        end)
      end

      # A setting goes along with its move.
      def answering(address)
        home = address.setting? && own(@source).find { |envelope| envelope.id == address.device_id }
        return (address if answering(home.target)) if home

        free? ? address : answer(address)
      end

      # Effects of a clip answer to those of another.
      def answer(address)
        found = (if address.owner_id == @source.chain_id && address.clip_id
                   Match.new(@song, @source,
                             @goal)
                 else
                   match
                 end)&.address(address)
        found if found && [goal_track&.id, @goal.chain_id].include?(found.owner_id)
      end

      # A carrier clip moves anything.
      def free? = @goal.is_a?(Clip) && @goal.carrier?

      def match = source_track && goal_track && Match.new(@song, source_track, goal_track)
      def source_track = @source_track ||= track_of(@source)
      def goal_track = @goal_track ||= track_of(@goal)

      # A clip belongs to the track it lies on; one that lies nowhere to the track it moves.
      def track_of(place)
        return place if place.is_a?(Track)

        placed = @song.directory.regions_of_clip(place.id).first
        placed ? placed.track : @song.directory.tracks[place.envelopes.first&.target&.owner_id]
      end

      def words(address) = "#{@song.owner_name(address)}: #{@song.parameter_name(address)}"
    end
  end
end
