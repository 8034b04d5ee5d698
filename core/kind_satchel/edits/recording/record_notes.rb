# frozen_string_literal: true

module KindSatchel
  module Edits
    # Writes notes that were played in, on one track: into the clips whose regions sound there, or into a new one.
    # `from_seconds` and `to_seconds` (of the song) say what the pass went over; `notes` carry `start_seconds`,
    # `end_seconds`, `pitch`, `velocity`. With `replace` what began there before goes; with `whole` a new clip spans
    # the range that repeats; `grid_ticks` brings starts to a grid.
    module RecordNotes
      def self.call(song, input)
        pass = Perform::NotePass.new(song, song.track(input[:track_id]), played(input),
                                     from: input[:from_seconds], to: input[:to_seconds],
                                     **input.slice(:replace, :whole, :grid_ticks))
        into = pass.clips.uniq
        words = "record #{PlainText.count(pass.written,
                                          'note')} into #{into.size > 3 ? "#{into.size} clips" : into.join(', ')}"
        [pass.song, words, left_out(pass)]
      end

      def self.played(input)
        faults = input[:notes].each_with_index.filter_map do |one, i|
          if one["end_seconds"] < one["start_seconds"]
            Fault.new("too_short", "/notes/#{i}/end_seconds",
                      "A note ends after it starts.")
          end
        end
        raise InvalidInput, faults unless faults.empty?

        input[:notes].map do |one|
          Perform::NotePass::Played.new(*one.values_at("start_seconds", "end_seconds", "pitch", "velocity"))
        end
      end

      def self.left_out(pass)
        return [] if pass.left_out.zero?

        [Notice.new("left_out", [],
                    "#{PlainText.count(pass.left_out, 'note')} past the end of a clip that is not repeated left out")]
      end
      private_class_method :played, :left_out
    end
  end
end
