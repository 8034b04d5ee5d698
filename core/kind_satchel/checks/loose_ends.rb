# frozen_string_literal: true

module KindSatchel
  module Checks
    # What a song may hold that nobody meant, in one list. A check is one file under `ends/` and one line here; each answers
    #
    # - `title` what it is called, `meaning` what it does to the song, in a sentence
    # - `of(song)` every place, as {End}s
    module LooseEnds
      # One of them. `text` says what and where; `place` leads there: of `envelope_id`, `address`, `track_id`, `clip_id`, `region_ids`,
      # `from_tick`, `to_tick` those that tell; `fixes` are {Fix}es, the first the one that is meant most often. `key` tells it from others of
      # its check, so that it can be set aside.
      End = Struct.new(:check, :key, :text, :place, :fixes)
      End.class_eval do
        # @return [Hash] plain data
        def to_record
          rules = ALL.fetch(check)
          { "check" => check, "title" => rules.title, "meaning" => rules.meaning, "key" => key, "text" => text, "place" => place,
            "fixes" => fixes.map { |fix| fix.to_h.transform_keys(&:to_s) } }
        end
      end
      # An edit that mends it.
      Fix = Struct.new(:words, :edit, :inputs)

      # What envelopes are called.
      module Words
        module_function

        # @return [String] "Cutoff in Mooring", "Cutoff on Rope Bass"
        def envelope(song, home) = "#{song.parameter_name(home.envelope.target)} #{home.clip ? "in #{home.clip.name}" : "on #{home.track.name}"}"

        # @return [String] "Cutoff of Rope Bass"
        def parameter(song, address) = "#{song.parameter_name(address)} of #{song.owner_name(address)}"

        # @return [String] "5.1.0 to 9.1.0"
        def stretch(song, from, to) = "#{song.meters.text(from)} to #{song.meters.text(to)}"

        def remove(id) = Fix.new("Remove it", "remove_envelope", { "envelope_id" => id })
        def switch(id, on, words) = Fix.new(words, "switch_envelope", { "envelope_id" => id, "on" => on })
      end

      NAMES = %w[two_setters uneven_starts lost_targets off beyond left_changed overruled limits idle_macros lost_drives muted_lanes empty_carriers
                 tempo_jumps].freeze
      NAMES.each { |name| require_relative "ends/#{name}" }
      ALL = Registry.new("check", NAMES.to_h { |name| [name, const_get(name.split("_").map(&:capitalize).join)] })

      module_function

      # @param song [Song]
      # @return [Array<End>] by check, in the order of the song
      def of(song)
        ALL.flat_map do |id, check|
          check.of(song).each { |one| one.check = id }
        end
      end
    end
  end
end
