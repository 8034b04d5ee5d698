# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets a macro drive a parameter, or sets how it does: from `low` at the foot of the macro's travel to `high` at
    # its top, normalised or as people write the target; low above high goes the other way. Or by `stops`, [place,
    # value] in order, both normalised. Without any of them a new one goes through all of the target's travel, an old
    # one stays as it is. A parameter has one driver: another is replaced only with `replace`.
    module SetDrive
      def self.call(song, input)
        macro = Macros.address!(song, input[:macro], "/macro")
        target = Macros.target!(song, input[:target], "/target")
        notices = driver!(song, macro, target, input)
        drive = drive(song, macro, target, input)
        next_song = Macros.change(Macros.freed(song, target), macro) { |one| one.driving(target, drive) }
        scale = song.parameter(target).scale
        ends = drive.stops.values_at(0, -1).map { |_, value| scale.text(value) }.join(" to ")
        [next_song, "let #{song.parameter_name(macro)} drive #{Macros.words(song, target)} from #{ends}", notices]
      end

      # @raise [InvalidInput] where another drives it
      # @return [Array<Notice>]
      def self.driver!(song, macro, target, input)
        other = song.directory.drivers(target).find { |one| one.macro != macro } or return []
        words = Macros.words(song, other.macro)
        return [Notice.new("replaced", [], "#{words} drives it no more")] if input[:replace]

        raise InvalidInput.of("already_driven", "/target",
                              "#{words} drives #{song.parameter_name(target)} already; it may be replaced.")
      end

      def self.drive(song, macro, target, input)
        return Drive.new(target:, stops: input[:stops]) if input[:stops]

        current = song.directory.drives_of(macro).find { |one| one.target == target } || Drive.plain(target)
        return current unless input.key?(:low) || input.key?(:high)

        ends = %i[low high].zip([current.stops.first[1], current.stops.last[1]])
        low, high = ends.map { |name, value| input.key?(name) ? value!(song, target, input[name], "/#{name}") : value }
        # What lies between stays where it is.
        between = current.stops[1..-2]
        current.with(stops: [[current.stops.first[0], low], *between, [current.stops.last[0], high]])
      end

      def self.value!(song, target, given, path)
        return given if given.is_a?(Numeric)

        InvalidInput.under(path) { song.parameter(target).scale.parse(given) }
      end
      private_class_method :driver!, :drive, :value!
    end
  end
end
