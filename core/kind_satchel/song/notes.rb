# frozen_string_literal: true

module KindSatchel
  # What lists of notes share, as plain functions of them.
  module Notes
    # The shortest note, in ticks.
    SHORTEST_TICKS = 15
    PITCHES = (0..127)
    VELOCITIES = (1..127)
    # The most notes of one clip.
    MOST = 100_000

    module_function

    # Puts notes that a hand has touched among those it left alone. At one pitch one note sounds at a time: a note that begins while
    # an earlier one sounds ends it, and of two that begin together the touched one stays.
    # @param kept [Array<Note>]
    # @param touched [Array<Note>] the later ones win over the earlier ones
    # @return [Array<Note>] by tick, then by pitch
    def settled(kept, touched)
      pitches = touched.to_h { |note| [note.pitch, true] }
      near, others = kept.partition { |note| pitches.key?(note.pitch) }
      in_order(others + (near + touched).group_by(&:pitch).values.flat_map { |list| one_at_a_time(list) })
    end

    # By tick, then by pitch. One whole number for both sorts much faster than a pair.
    # @param list [Array<Note>]
    # @return [Array<Note>]
    def in_order(list) = list.sort_by { |note| (note.tick << 7) | note.pitch }

    # @param list [Array<Note>] of one pitch
    def one_at_a_time(list)
      starts = list.to_h { |note| [note.tick, note] }.values.sort_by(&:tick)
      starts.each_with_index.map do |note, i|
        room = i + 1 < starts.size ? starts[i + 1].tick - note.tick : note.length_ticks
        room < note.length_ticks ? note.with(length_ticks: room) : note
      end
    end
  end
end
