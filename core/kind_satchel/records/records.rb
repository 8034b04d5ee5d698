# frozen_string_literal: true

module KindSatchel
  # Plain records (hashes with text keys) of each value, and back. One place for the song document, the database
  # rows, the edit log and the wire; keys come in one order, so equal values give equal text.
  #
  # For each kind of value there are two: its own name makes the record, `read_` before it reads one, and raises
  # {InvalidInput} with the place of each fault.
  module Records
    module_function

    # Reads a list; the faults of all its entries come back at once, each under its place.
    def each(list, path)
      faults = Faults.new
      values = list.each_with_index.map do |entry, i|
        break if faults.full?

        faults.within("#{path}/#{i}") { yield entry }
      end
      faults.raise_any
      values
    end
  end
end
