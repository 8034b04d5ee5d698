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
      def change(song, envelope_id)
        home = song.directory.envelope(envelope_id)
        replace(song, home, yield(home.envelope))
      end

      def replace(song, home, envelope)
        return song.with_clip(home.clip.with(envelopes: swap(home.clip.envelopes, home.envelope, envelope))) if home.clip

        song.with_track(home.track.with(lanes: swap(home.track.lanes, home.envelope, envelope)))
      end

      def swap(list, old, new) = list.filter_map { |entry| entry.equal?(old) ? new : entry }

      # @return [String] the name of what an envelope moves
      def name(song, envelope_id) = song.parameter(song.directory.envelope(envelope_id).envelope.target).name

      # A new envelope that changes nothing yet: one point with the resting value.
      def resting(song, address)
        point = Point.new(tick: 0, value: song.knob(address), shape: Shapes::Straight::PLAIN)
        Envelope.fresh(id: "envelope-#{song.next_id}", target: address, points: [point])
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

      # Switches and choices can only be set.
      def role_fits!(parameter, role, path)
        return if role == "set" || !parameter.scale.set_only?

        kind = parameter.scale.steps == 1 ? "switch" : "choice"
        raise InvalidInput.of("set_only", path, "#{parameter.name} is a #{kind}: an envelope can set it, not #{role} it.")
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

      def count(number, word) = number == 1 ? "a #{word}" : "#{number} #{word}s"

      private_class_method :replace, :swap
    end
  end
end
