# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of notes share.
    module Noting
      module_function

      # @return [Clip] of notes
      # @raise [InvalidInput]
      # @raise [NotFound]
      def clip!(song, input)
        clip = song.clip(input[:clip_id])
        return clip if clip.kind == "notes"

        raise InvalidInput.of("wrong_kind", "/clip_id", "#{clip.name} is a clip of #{clip.kind}; it holds no notes.")
      end

      # Gives some notes of a clip their next form, in the order in which they stand.
      # @param input [Hash] `:clip_id` and `:runs`: places of notes, [first, last] each
      # @yieldparam chosen [Array<Note>]
      # @yieldreturn [Array<Note>]
      # @param copy [Boolean] whether the chosen ones stay as well
      # @return [Array(Song, String)] the next song, and which notes it was about ("3 notes of Line")
      def change(song, input, copy: false)
        clip = clip!(song, input)
        runs = runs!(clip, input[:runs])
        chosen = runs.flat_map { |first, last| clip.notes[first..last] }
        kept = copy ? clip.notes : between(clip.notes, runs)
        [with_notes(song, clip, kept, yield(chosen)), "#{PlainText.count(chosen.size, 'note')} of #{clip.name}"]
      end

      # @return [Song] in which a clip has other notes
      def with_notes(song, clip, kept, touched) = song.with_clip(clip.with(notes: Notes.settled(kept, touched)))

      # The notes outside of runs.
      def between(notes, runs)
        from = 0
        runs.each_with_object([]) do |(first, last), list|
          list.concat(notes[from...first])
          from = last + 1
        end.concat(notes[from..])
      end

      # @return [Array<Array(Integer, Integer)>] in order, none touching another
      # @raise [NotFound] for places that hold no note
      def runs!(clip, runs)
        faults = runs.each_with_index.filter_map do |(first, last), i|
          next if first <= last && last < clip.notes.size

          Fault.new("unknown_note", "/runs/#{i}",
                    "#{clip.name} has #{clip.notes.size} notes; #{first} to #{last} names others.")
        end
        raise NotFound, faults unless faults.empty?

        runs.sort.each_with_object([]) do |(first, last), list|
          list.any? && first <= list.last[1] + 1 ? list.last[1] = [list.last[1], last].max : list << [first, last]
        end
      end
    end
  end
end
