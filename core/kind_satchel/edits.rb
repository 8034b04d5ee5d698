# frozen_string_literal: true

require_relative "edits/helpers/notice"
require_relative "edits/helpers/inputs"
require_relative "edits/helpers/envelopes"
require_relative "edits/helpers/regions"
require_relative "edits/helpers/fades"
require_relative "edits/helpers/region_fade"
require_relative "edits/helpers/landing"
require_relative "edits/helpers/placing"
require_relative "edits/helpers/carrying"
require_relative "edits/helpers/amounts"
require_relative "edits/helpers/chains"
require_relative "edits/helpers/macros"
require_relative "edits/helpers/noting"
require_relative "edits/helpers/playing"
require_relative "edits/helpers/ends_of"
require_relative "edits/helpers/repeats"
require_relative "edits/helpers/counted_on"

module KindSatchel
  # Every change to a song, a file each under `edits/`, in folders by what they change; what several of them share
  # stands in `edits/helpers/`.
  #
  # An edit is a pure function of a song and its inputs, `call(song, input)`; it returns the next song (sharing what
  # did not change), the words for undo, and what else is worth telling. Its inputs have one definition,
  # `schemas/edits/NAME.json`; `docs/edits.md` lists them all. A new edit is one file here, its name in {FOLDERS}, and
  # one schema there.
  module Edits
    # `song` is the next song, `words` say what was done ("move 3 points of Cutoff"), `notices` what comes with it
    # ({Notice}s), known before the hand lets go; `kept` is what the app keeps beside the song (nil for nothing).
    Result = Struct.new(:song, :words, :notices, :kept)

    # By folder, which is what they change.
    FOLDERS = {
      "points" => %w[
        add_point boost_points draw_stretch duplicate_stretch enter_points fade flip_points level_points move_points
        paste_snippet quantise_points remove_points reverse_points rub_out scale_points shape_segments shift_points
        stretch_points thin_points tilt_points
      ],
      "envelopes" => %w[
        add_lane clear_envelope copy_moves crop_envelope draw_lfo embed_envelope follow_level lay_out pack
        raise_envelope remove_envelope remove_envelopes set_clock set_fader set_lfo set_limits set_role switch_envelope
        switch_envelopes take_envelope vary_move
      ],
      "notes" => %w[
        add_notes humanise_notes legato_notes move_notes pace_notes quantise_notes remove_notes set_velocity
        stretch_notes
      ],
      "regions" => %w[
        consolidate_regions copy_regions duplicate_regions fade_region join_region loop_regions move_regions
        mute_regions place_sound remove_regions separate_regions split_region swap_clip take_regions trim_region
      ],
      "clips" => %w[double_clip fit_carrier make_carrier make_clip set_audio set_clip set_tails],
      "tracks" => %w[
        add_track colour_track duplicate_track make_group move_track remove_track rename_track set_output
        take_tracks
      ],
      "devices" => %w[
        add_device chain_to_clip chain_to_track drive_from hand_back morph_macro move_device remove_device
        remove_drive replace_device set_chain set_device set_drive set_knob set_macro set_sound
      ],
      "time" => %w[
        add_marker delete_time insert_time paste_time remove_marker remove_meter set_marker set_meter set_range
      ],
      "tempo" => %w[glide_tempo set_tempo],
      "recording" => %w[record_moves record_notes rewrite_pass],
      "satchel" => %w[drop_move],
      "song" => %w[mend_ends rename_song set_ends_aside set_points_follow take_ends_back]
    }.freeze
    FOLDERS.each { |folder, names| names.each { |name| require_relative "edits/#{folder}/#{name}" } }
    NAMES = FOLDERS.values.flatten.sort.freeze

    ALL = Registry.new("edit", NAMES.to_h { |name| [name, const_get(name.split("_").map(&:capitalize).join)] })

    # @example
    #   Edits.apply(song, "rename_song", { "name" => "Ebb" }).words #=> "rename the song to Ebb"
    # @param song [Song]
    # @param name [String] a known edit
    # @param inputs [Hash] data that fits the edit's schema
    # @return [Result]
    # @raise [InvalidInput] when a rule is broken; the song is untouched
    def self.apply(song, name, inputs)
      next_song, words, notices, kept = ALL.fetch(name).call(song, inputs.transform_keys(&:to_sym))
      Integrity.check(song, next_song)
      Result.new(next_song, words, checked(name, notices || []), kept)
    end

    # What an edit tells is checked before anything is stored.
    def self.checked(name, notices)
      return notices if notices.all? { |one| one.is_a?(Notice) && one.text.is_a?(String) && one.ids.all?(String) }

      raise TypeError, "#{name} notices #{notices.inspect}"
    end
    private_class_method :checked
  end
end
