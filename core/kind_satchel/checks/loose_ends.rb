# frozen_string_literal: true

module KindSatchel
  module Checks
    # What a song may hold that nobody meant, in one list. A check is one file under `ends/` and one line here; each
    # answers
    #
    # - `title` what it is called, `meaning` what it does to the song, in a sentence
    # - `find(song, outside)` every place, quickly: lists of a key that tells it from others of its check, and what
    #   {tell} needs
    # - `tell(song, *place)` that place in words, an {End}
    #
    # One whose places hang together, so that mending one may mend another, answers `entangled?`.
    module LooseEnds
      # One of them. `text` says what and where; `place` leads there: of `envelope_id`, `address`, `track_id`,
      # `clip_id`, `region_ids`, `from_tick`, `to_tick` those that tell; `fixes` are {Fix}es, the first the one that
      # is meant most often.
      End = Struct.new(:text, :place, :fixes)
      # An edit that mends it.
      Fix = Struct.new(:words, :edit, :inputs)
      # What is known besides the song: sounds it plays that are not there (nil where nobody looked), and the peak of
      # its last mixdown in dBFS (nil where there is none).
      Outside = Struct.new(:missing_sounds, :peak_db)

      # A place that was found, not yet found.
      Found = Struct.new(:check, :key, :place) do
        # @return [#find, #tell] the check
        def rules = ALL.fetch(check)

        # @return [End]
        def tell(song) = rules.tell(song, key, *place)

        # @return [Hash] plain data
        def to_record(song)
          found, aside = tell(song), song.aside(check, key)
          { "check" => check, "title" => rules.title, "meaning" => rules.meaning, "key" => key, "text" => found.text,
            "place" => found.place,
            "fixes" => found.fixes.map do |fix|
              fix.to_h.transform_keys(&:to_s)
            end, **(aside ? { "reason" => aside.reason } : {}) }
        end
      end

      # What envelopes are called.
      module Words
        module_function

        # @return [String] "Cutoff in Mooring", "Cutoff on Rope Bass"
        def envelope(song, id)
          home = song.directory.envelope(id)
          "#{song.parameter_name(home.envelope.target)} #{home.clip ? "in #{home.clip.name}" : "on #{home.track.name}"}"
        end

        # @return [String] "Cutoff of Rope Bass"
        def parameter(song, address) = "#{song.parameter_name(address)} of #{song.owner_name(address)}"

        # @param address [Address] of a parameter that is not there
        # @return [String] what of it is not: "Rope Bass has no device for it", "its track is gone"
        def gone(song, address)
          if address.setting?
            known = song.directory.envelopes.key?(address.envelope_id)
            return known ? "that move has no such setting" : "that move is gone"
          end

          owner = address.clip_id ? song.clips[address.clip_id] : song.directory.tracks[address.owner_id]
          return "its #{address.clip_id ? 'clip' : 'track'} is gone" unless owner

          device = owner.devices.find { |one| one.id == address.device_id }
          device ? "#{device.type_rules.name} of #{owner.name} has no such knob" : "#{owner.name} has no device for it"
        end

        # @return [String] "5.1.0 to 9.1.0"
        def stretch(song, from, to) = "#{song.meters.text(from)} to #{song.meters.text(to)}"

        # @return [Fix]
        def remove(id) = Fix.new("Remove it", "remove_envelope", { "envelope_id" => id })

        # @return [Fix]
        def switch(id, on, words) = Fix.new(words, "switch_envelope", { "envelope_id" => id, "on" => on })
      end

      # Finds what hangs on a clip, or a track, alone, and remembers it with that: an edit leaves most of a song as it
      # is.
      # @param name [Symbol] of the check
      # @yieldparam owner [Track, Clip]
      # @yieldparam envelopes [Array<Envelope>]
      # @yieldreturn [Array] places
      # @return [Array] those of all
      def self.by_owner(song, name)
        found = []
        song.tracks.each { |track| found.concat(track.memo(name) { yield track, track.lanes }) }
        song.clips.each_value { |clip| found.concat(clip.memo(name) { yield clip, clip.envelopes }) }
        found
      end

      NAMES = %w[two_setters uneven_starts lost_targets missing_sounds too_loud off beyond left_changed overruled
                 limits idle_macros lost_drives
                 muted_lanes empty_carriers tempo_jumps stale_followers].freeze
      NAMES.each { |name| require_relative "ends/#{name}" }
      ALL = Registry.new("check", NAMES.to_h { |name| [name, const_get(name.split("_").map(&:capitalize).join)] })

      module_function

      # @example
      #   LooseEnds.of(song).first.check #=> "uneven_starts"
      # @param song [Song]
      # @param outside [Outside]
      # @return [Array<Found>] by check, in the order of the song; also what is set aside
      def of(song, outside = Outside.new) = ALL.flat_map { |id, _| of_check(song, id, outside) }

      # @return [Array<Found>] of one check
      # @raise [InvalidInput] for a check there is none of
      def of_check(song, id, outside = Outside.new)
        ALL.fetch(id).find(song, outside).map { |key, *place| Found.new(id, key, place) }
      end

      # Those that nobody set aside.
      # @return [Array<Found>]
      def open(song, outside = Outside.new)
        of(song, outside).reject { |one| song.aside(one.check, one.key) }
      end
    end
  end
end
