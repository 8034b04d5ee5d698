# frozen_string_literal: true

module KindSatchel
  module Edits
    # Lets one move move another parameter too, in one step: a macro is made that drives what the envelope moved, over
    # all of its travel, and `target`; the envelope moves the macro from now on. The macro comes to stand at the head
    # of the track of what was moved.
    module DriveFrom
      def self.call(song, input)
        home = song.directory.envelope(input[:envelope_id])
        envelope = home.envelope
        moved = envelope.target
        target = Macros.target!(song, input[:target], "/target")
        check!(song, envelope, target)
        song, macro = free_macro(song, moved)
        name = song.parameter(moved).name
        song = Macros.change(song, macro) do |one|
          one.with(name: name[0, Macro::MOST_NAME])
             .driving(moved, Drive.plain(moved)).driving(target, Drive.plain(target))
        end
        song = song.owned(macro).turned(song.knob(moved))
        next_song = Envelopes.change(song, envelope.id) { |one| one.with(target: macro, fader: "follow") }
        [next_song, "let what moves #{name} drive #{Macros.words(song, target)} too"]
      end

      def self.check!(song, envelope, target)
        unless envelope.role == "set"
          raise InvalidInput.of("sets_only", "/envelope_id",
                                "Only a move that sets can drive others.")
        end

        nowhere = envelope.target.setting? || envelope.target.clip_id
        raise InvalidInput.of("not_a_device", "/envelope_id", "What it moves has no chain for a macro.") if nowhere
        raise InvalidInput.of("same_place", "/target", "It moves that already.") if target == envelope.target

        [envelope.target, target].each do |address|
          next if song.directory.drivers(address).empty?

          raise InvalidInput.of("already_driven", "/target", "#{Macros.words(song, address)} is driven already.")
        end
      end

      # A knob that drives nothing and is moved by nothing, of a strip on the track; a new strip where there is none.
      def self.free_macro(song, moved)
        track = song.track(moved.owner_id)
        track.macro_strips.each do |device|
          device.type_rules.parameters.each_key do |id|
            address = Address.new(owner_id: track.id, device_id: device.id, parameter_id: id)
            return [song, address] if free?(song, address)
          end
        end
        strip = Chains.fresh(track.devices.map(&:id), "macro-strip")
        song = song.with_track(track.with(devices: [strip, *track.devices]))
        [song, Address.new(owner_id: track.id, device_id: strip.id, parameter_id: "macro-1")]
      end

      def self.free?(song, address)
        song.directory.drives_of(address).empty? && song.directory.movers(address).empty? &&
          song.lanes_of(address).empty?
      end
      private_class_method :check!, :free_macro, :free?
    end
  end
end
