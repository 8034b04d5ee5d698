# frozen_string_literal: true

# Holds every answer of the server to schemas/wire.json, from which the client's types are made.
module Answers
  NAMES = {
    %r{^GET /api/catalogue$} => "catalogue",
    %r{^GET /api/help$} => "help",
    %r{^GET /api/(songs|bin)$} => "shelf",
    %r{^DELETE /api/bin(/\d+)?$} => "gone",
    %r{^POST /api/songs(/import(?:_packed)?|/\d+/(duplicate|restore))?$} => "shelf_entry",
    %r{^GET /api/songs/\d+$} => "snapshot",
    %r{^GET /api/songs/\d+/drawing\?} => "track_drawing",
    %r{^GET /api/songs/\d+/clock(\?|$)} => "clock",
    %r{^GET /api/songs/\d+/heard\?} => "heard",
    %r{^GET /api/songs/\d+/values\?} => "values",
    %r{^GET /api/songs/\d+/explanation\?} => "explanation",
    %r{^GET /api/songs/\d+/at_playhead\?} => "at_playhead",
    %r{^GET /api/songs/\d+/reading\?} => "reading",
    %r{^GET /api/songs/\d+/move_settings\?} => "move_settings",
    %r{^GET /api/songs/\d+/position\?} => "position",
    %r{^GET /api/songs/\d+/moves_table\?} => "moves_table",
    %r{^GET /api/songs/\d+/track_counts\?} => "track_counts",
    %r{^GET /api/songs/\d+/playback\?} => "stretch",
    %r{^GET /api/songs/\d+/offline\?} => "offline_copy",
    %r{^POST /api/songs/\d+/(edits|undo|redo|history)$} => "change",
    %r{^GET /api/songs/\d+/history$} => "history",
    %r{^POST /api/songs/\d+/preview$} => "preview",
    %r{^POST /api/songs/\d+/listening$} => "listening",
    %r{^POST /api/midi(\?|$)} => "midi_document",
    %r{^GET /api/songs/\d+/passes$} => "hand_passes",
    %r{^(GET|POST) /api/songs/\d+/mappings$} => "mapping_lists",
    %r{^(GET|DELETE) /api/keys} => "key_list",
    %r{^POST /api/songs/\d+/invitation$} => "invitation",
    %r{^GET /api/songs/\d+/loose_ends$} => "loose_ends",
    %r{^GET /api/moves$} => "satchel_list",
    %r{^GET /api/moves/file} => "satchel_file",
    %r{^POST /api/moves/take$} => "satchel_list",
    %r{^POST /api/moves/near$} => "nearest_moves",
    %r{^(POST /api/moves|(POST|DELETE) /api/moves/\d+)$} => "satchel_entry",
    %r{^GET /api/songs/\d+/kept_move\?} => "kept_move",
    %r{^GET /api/presets$} => "preset_list",
    %r{^POST /api/presets$} => "preset",
    %r{^GET /api/sounds$} => "sound_list",
    %r{^GET /api/sounds/[^/]+/outline$} => "outline",
    %r{^GET /api/songs/\d+/missing$} => "missing_sounds",
    %r{^DELETE /api/sounds$} => "freed",
    %r{^POST /api/sounds\?} => "sound_entry",
    %r{^(GET|POST) /api/songs/\d+/hand_over$} => "hand_over",
    %r{^POST /api/songs/\d+/baking$} => "baking",
    %r{^POST /api/songs/\d+/baked_curves$} => "baked_curves",
    %r{^POST /api/songs/\d+/hand_overs$} => "handed_over",
    %r{^POST /api/hand_overs/[^/]+/wrapped} => "fetchable",
    %r{^GET /api/songs/\d+/versions$} => "version_list",
    %r{^GET /api/songs/\d+/versions/\d+$} => "version_parts",
    %r{^POST /api/songs/\d+/versions$} => "version_entry",
    %r{^PUT /api/songs/\d+/versions/\d+$} => "version_entry",
    %r{^GET /api/songs/\d+/versions/\d+/comparison(\?|$)} => "comparison",
    %r{^GET /api/songs/\d+/versions/\d+/curves} => "baked_curves",
    %r{^DELETE /api/jobs/} => "cancelled"
  }.freeze

  module_function

  # @raise [RSpec::Expectations::ExpectationNotMetError] for an answer that is not as the schema says
  def check!(method, path, answer)
    _, name = NAMES.find { |form, _| form.match?("#{method} #{path}") }
    return unless name

    faults = faults(name, answer)
    raise RSpec::Expectations::ExpectationNotMetError, "#{method} #{path} is no #{name}:\n#{faults.join("\n")}" if faults.any?
  end

  # @return [Array<String>] the first faults
  def faults(name, answer) = schema.ref("#/$defs/#{name}").validate(answer).first(5).map { |fault| "#{fault['data_pointer']}: #{fault['error']}" }

  def schema
    @schema ||= begin
      require "json_schemer"
      JSONSchemer.schema(Schemas::FOLDER.join("wire.json"))
    end
  end
end
