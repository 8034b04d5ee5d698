# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of envelopes share.
    module Moves
      module_function

      # Replaces one envelope where it lives.
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Envelope, nil] the next one; nil removes it
      # @return [Song]
      def change(song, envelope_id, &) = Transfer::Lanes.change(song, envelope_id, &)

      # Gives some points of an envelope their next form.
      # @param input [Hash] `:envelope_id` and `:runs`, see {Selection}
      # @yieldparam selection [Selection]
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Array<Point>] all points of the next envelope
      # @return [Array(Song, String)] the next song, and which points it was about ("3 points of Cutoff")
      def change_points(song, input)
        size = nil
        next_song = change(song, input[:envelope_id]) do |envelope|
          selection = Selection.new(envelope.points, input[:runs])
          size = selection.size
          envelope.with(points: yield(selection, envelope))
        end
        [next_song, "#{count(size, 'point')} of #{name(song, input[:envelope_id])}"]
      end

      # Gives a stretch of an envelope its next form.
      # @param input [Hash] `:envelope_id`, `:from_tick`, `:to_tick`
      # @yieldparam envelope [Envelope]
      # @yieldreturn [Array<Point>] all points of the next envelope
      # @return [Array(Song, String)] the next song, and the parameter's name
      def change_stretch(song, input, &block)
        raise InvalidInput.of("too_short", "/to_tick", "A stretch ends after it starts.") unless input[:to_tick] > input[:from_tick]

        [change(song, input[:envelope_id]) { |envelope| envelope.with(points: block.call(envelope)) }, name(song, input[:envelope_id])]
      end

      # @param text [String]
      # @return [String] without blanks around it
      # @raise [InvalidInput] for nothing but blanks
      def name!(text)
        text.strip.tap { |wish| raise InvalidInput.of("bad_name", "/name", "A name is not blank.") if wish.empty? }
      end

      # @return [Scales::Scale] of the parameter an envelope moves
      def scale(song, envelope) = song.parameter(envelope.target).scale

      # Regions by id, each once, by track and time.
      # @return [Array<Directory::Placed>]
      # @raise [NotFound] for every id that names none
      def regions!(song, ids, path = "/region_ids")
        known = song.directory.regions
        faults = ids.each_with_index.filter_map do |id, i|
          Fault.new("unknown_region", "#{path}/#{i}", "There is no region #{id.inspect} in this song.") unless known.key?(id)
        end
        raise NotFound, faults unless faults.empty?

        ids.uniq.map { |id| known[id] }.sort_by { |placed| [placed.place, placed.region.start_tick] }
      end

      # What regions are called: by the name of their clip, or how many they are.
      # @param placed [Array<Directory::Placed>]
      def region_words(song, placed)
        placed.size == 1 ? song.clip(placed.first.region.clip_id).name : "#{placed.size} regions"
      end

      # Every track with some of its regions made anew.
      # @yieldparam placed [Directory::Placed]
      # @yieldreturn [Region, nil] nil takes it away
      # @return [Song]
      def change_regions(song, placed)
        placed.group_by(&:track).reduce(song) do |now, (track, list)|
          named = list.to_h { |one| [one.region.id, one] }
          regions = track.regions.filter_map { |region| named.key?(region.id) ? yield(named[region.id]) : region }
          now.with_track(now.track(track.id).with(regions:))
        end
      end

      # @param text [String] an amount as people write it
      # @return [Float] the value of a point that comes to it, between the limits of the envelope
      # @raise [InvalidInput]
      def typed(envelope, scale, text)
        rules = envelope.role_rules
        value = envelope.value_of(rules.parse(scale, text))
        least, most = Roles.full(envelope.role)
        return value.clamp(least, most) if value.between?(least - 1e-9, most + 1e-9)

        ends = [least, most].map { |one| rules.amount_text(scale, envelope.amount(one)) }
        raise InvalidInput.of("out_of_range", "", "#{text.strip} lies outside the limits, #{ends.join(' to ')}.")
      end

      # @return [String] the name of what an envelope moves
      def name(song, envelope_id) = song.parameter_name(song.directory.envelope(envelope_id).envelope.target)

      # The role asked for, "set" unless said otherwise.
      # @raise [InvalidInput] for a role the parameter cannot take
      def role(song, address, input)
        input.fetch(:role, "set").tap { |role| song.parameter(address).role_fits!(role, "/role") }
      end

      # @return [Address] of something that may be moved
      # @raise [InvalidInput]
      def target(song, text, path = "/address")
        at(path) do
          address = Address.parse(text)
          song.parameter(address).automatable!("")
          address
        end
      end

      # Runs the block; its faults are said of `path`.
      def at(path)
        yield
      rescue InvalidInput => e
        raise(e.class, e.faults.map { |fault| fault.under(path) })
      end

      # @raise [NotFound] for places that hold no point
      def points_at!(envelope, indexes, path)
        faults = indexes.each_with_index.filter_map do |index, i|
          next if index < envelope.points.size

          Fault.new("unknown_point", "#{path}/#{i}", "The envelope has #{envelope.points.size} points; there is none at place #{index}.")
        end
        raise NotFound, faults unless faults.empty?
      end

      # Points from a place on, moved in time.
      def pushed(points, from, ticks)
        return points if ticks.zero?

        points.each_with_index.map { |point, i| i < from ? point : point.with(tick: [point.tick + ticks, 0].max) }
      end

      # @return [String] what becomes of drawn points that something takes the place of
      def replaced(number) = number == 1 ? "its point is replaced" : "its #{number} points are replaced"

      def count(number, word) = number == 1 ? "a #{word}" : "#{number} #{word}s"
    end
  end
end
