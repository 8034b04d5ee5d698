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

    # Puts notes that a hand has touched among those it left alone. At one pitch one note sounds at a time: a note
    # that begins while an earlier one sounds ends it, and of two that begin together the touched one stays.
    # @param kept [Array<Note>]
    # @param touched [Array<Note>] the later ones win over the earlier ones
    # @return [Array<Note>] by tick, then by pitch
    def settled(kept, touched)
      pitches = Array.new(128, false)
      touched.each { |note| pitches[note.pitch] = true }
      near, others = kept.partition { |note| pitches[note.pitch] }
      merged(in_order(others), in_order((near + touched).group_by(&:pitch).values.flat_map do |list|
        one_at_a_time(list)
      end))
    end

    # By tick, then by pitch; a list that is so already is given back.
    # @param list [Array<Note>]
    # @return [Array<Note>]
    def in_order(list) = in_order?(list) ? list : list.sort_by { |note| place(note) }

    # One whole number for tick and pitch compares much faster than a pair.
    def place(note) = (note.tick << 7) | note.pitch

    def in_order?(list)
      last = -1
      list.each do |note|
        now = place(note)
        return false if now < last

        last = now
      end
      true
    end

    # Two lists in order as one. A few among many are put in where they belong, without a look at the rest.
    def merged(many, few)
      return in_order(many + few) if few.size * 8 > many.size

      from = 0
      few.each_with_object([]) do |note, list|
        at = many.bsearch_index { |other| place(other) > place(note) } || many.size
        list.concat(many[from...at]) << note
        from = at
      end.concat(many[from..] || [])
    end

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
