# frozen_string_literal: true

module KindSatchel
  module HandOver
    # By which MIDI controller each moved parameter goes out.
    module Controllers
      # A row: `number` of the controller, or "bend" for pitch bend; `bits` 7 or 14. One of 14 bits also takes the
      # number 32 above it (MIDI 1.0: 0 to 31 have their finer half in 32 to 63).
      class Row < Value.of(:address, :number, :bits)
        def check
          known = number == BEND || (number.is_a?(Integer) && number.between?(0, LAST))
          fault!("out_of_range", "/number", "A controller is a number from 0 to #{LAST}, or #{BEND}.") unless known
          fault!("out_of_range", "/bits", "A controller has 7 or 14 bits.") unless Limits::BITS.include?(bits)
          fine = bits == 7 || number == BEND || number < FINE
          fault!("no_fine_half", "/bits", "Only controllers 0 to 31 and pitch bend have 14 bits.") unless fine
        end

        # @return [Array] numbers it takes on its channel
        def taken = bits == 14 && number != BEND ? [number, number + FINE] : [number]

        # @return [Hash] plain data
        def to_record = { "address" => address.to_s, "number" => number, "bits" => bits }
      end

      BEND = "bend"
      # Those above are no controllers but messages of their own (MIDI 1.0, channel mode).
      LAST = 119
      FINE = 32
      # Where a parameter goes first: 7 and 10 by MIDI 1.0, 71 to 75, 91 and 93 as they are commonly used (General
      # MIDI 2, from memory).
      USUAL = { **Formats::MidiControls::USUAL.invert, "expression" => 11, "vibrato" => 1 }.freeze
      # Those with no meaning of their own (MIDI 1.0), then those with one that is rarely used.
      FREE = [*102..119, *20..31, 14, 15, 3, 9, 85, 86, 87, 88, 89, 90, 91, 93, 16, 17, 18, 19, *76..83, 92, 94, 95, 2,
              4, 5, 12, 13, 1, 11, 8, 70,
              *71..75, 7, 10].freeze
      # Bank, data entry, pedals and parameter numbers do something to most instruments.
      MOST = FREE.size + 1

      module_function

      # A first table: of every moved parameter of a track or its clips, with the sends on 91 and 93 first.
      # @param song [Song]
      # @param known [Array<Row>] that stay as they are
      # @return [Array<Row>] of as many as there is room for
      def proposed(song, known = [])
        by_address = known.to_h { |row| [row.address, row] }
        song.sounded.group_by { |address| channel_track(song, address) }.flat_map do |_, addresses|
          taken = by_address.values_at(*addresses).compact.flat_map(&:taken)
          addresses.filter_map { |address| by_address[address] || row(song, address, taken) }
        end
      end

      # @param records [Array<Hash>] plain data
      # @return [Array<Row>]
      # @raise [InvalidInput] with every fault: what is no controller, clashes, what is not in the song
      def read(song, records)
        faults = Faults.new
        rows = records.each_with_index.map do |record, i|
          faults.within("/controllers/#{i}") do
            row = Row.new(address: Address.parse(record["address"]), number: record["number"],
                          bits: record.fetch("bits", 7))
            song.parameter(row.address)
            row
          end
        end
        faults.raise_any
        check(song, rows)
        rows
      end

      # @raise [InvalidInput] where two would take one controller of a track
      def check(song, rows)
        faults = []
        rows.each_with_index.group_by { |row, _| channel_track(song, row.address) }.each_value do |list|
          taken = {}
          list.each do |row, i|
            other = row.taken.filter_map { |number| taken[number] }.first
            faults << clash(song, row, other, i) if other
            row.taken.each { |number| taken[number] ||= row }
          end
        end
        raise InvalidInput, faults if faults.any?
      end

      # The track on whose part of the file a parameter goes out.
      # @return [String] its id
      def channel_track(song, address) = (song.tracks_of(address).first || song.tracks.last).id

      def row(song, address, taken)
        return if address.song?

        id = address.parameter_id
        number = [usual(song, address, id), *FREE].compact.find { |one| !taken.include?(one) } or return
        taken << number
        Row.new(address:, number:, bits: number == BEND ? 14 : 7)
      end

      def usual(song, address, id)
        return BEND if id == "bend"
        return 91 + (2 * send_index(song, id).clamp(0, 1)) if id.start_with?("send-")

        USUAL[id] if !Formats::MidiControls::OF_CHANNEL.include?(id) || address.device_id == "channel"
      end

      # @return [Integer] which of the sends it is; 0 where it is none
      def send_index(song, id) = song.returns.index { |track| "send-#{track.id}" == id }.to_i

      def clash(song, row, other, place)
        words = "#{name(song, row)} and #{name(song, other)} both go out by controller " \
                "#{(row.taken & other.taken).first}; give one of them another."
        Fault.new("clash", "/controllers/#{place}/number", words)
      end

      def name(song, row) = song.full_name(row.address)
      private_class_method :row, :usual, :clash, :name
    end
  end
end
