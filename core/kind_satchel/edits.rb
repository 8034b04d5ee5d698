# frozen_string_literal: true

require "set"
require_relative "edits/tell"
require_relative "edits/moves"
require_relative "edits/landing"
require_relative "edits/placing"
require_relative "edits/carrying"
require_relative "edits/amounts"
require_relative "edits/chains"
require_relative "edits/macros"
require_relative "edits/noting"
require_relative "edits/playing"
require_relative "edits/ends_of"

module KindSatchel
  # Every change to a song, a file each under `edits/`. An edit is a pure function of a song and its inputs; it
  # returns the next song (sharing what did not change), the words for undo, and what else is worth telling. Its inputs have one definition,
  # `schemas/edits/NAME.json`; a new edit is one file here and one schema there.
  module Edits
    # `song` is the next song, `words` say what was done ("move 3 points of Cutoff"), `tells` what comes with it ({Tell}s), known
    # before the hand lets go; `kept` is what the app keeps beside the song (nil for nothing).
    Result = Struct.new(:song, :words, :tells, :kept)

    NAMES = Dir.children(File.expand_path("../../schemas/edits", __dir__)).grep(/\.json\z/).map { |file| File.basename(file, ".json") }.sort.freeze
    NAMES.each { |name| require_relative "edits/#{name}" }

    ALL = Registry.new("edit", NAMES.to_h { |name| [name, const_get(name.split("_").map(&:capitalize).join)] })

    # @param song [Song]
    # @param name [String] a known edit
    # @param inputs [Hash] data that fits the edit's schema
    # @return [Result]
    # @raise [InvalidInput] when a rule is broken; the song is untouched
    def self.apply(song, name, inputs)
      next_song, words, tells, kept = ALL.fetch(name).call(song, inputs.transform_keys(&:to_sym))
      Integrity.check(song, next_song)
      Result.new(next_song, words, told(name, tells || []), kept)
    end

    # What an edit tells is checked before anything is stored.
    def self.told(name, tells)
      return tells if tells.all? { |tell| tell.is_a?(Tell) && tell.text.is_a?(String) && tell.ids.all?(String) }

      raise TypeError, "#{name} tells #{tells.inspect}"
    end
    private_class_method :told
  end
end
