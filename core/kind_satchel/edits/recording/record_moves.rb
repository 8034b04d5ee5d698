# frozen_string_literal: true

module KindSatchel
  module Edits
    # Writes what hands did with parameters in one lap of a pass (see {Perform::HandPass}): into the clips that sound
    # there, into lanes, or into a new carrier clip; `into` "once" runs once over each region that was played, in a
    # clip of its own. `moves` name each parameter with its `grips`: `samples` are seconds of the song and normalised
    # values, in turns; `until_seconds` is where the hand let go. With `latch` each goes on to the end of the lap
    # (`to_seconds`). After a grip the value glides over `glide_seconds` into what held. `grid_ticks` above 0 brings
    # it to a grid; `inside_range` leaves out what lies outside the range; `separate` gives the regions that sound
    # there clips of their own first; `kept_only` writes nothing, but the samples are kept. Parameters that are held
    # by hand are handed back.
    module RecordMoves
      extend Playing

      def self.call(song, input)
        strokes = strokes(song, input)
        raise InvalidInput.of("nothing_played", "/moves", "Nothing of it lies in what is recorded.") if strokes.empty?

        ready = Perform::HandBack.call(song, strokes.keys)
        return kept_beside(song, strokes, input) if input[:kept_only]

        no_lanes!(song, strokes.keys) if input[:into] == "lane"
        ready, region_id = into(ready, strokes, input)
        into = region_id ? "region" : input[:into]
        pass = Perform::HandPass.write(ready, strokes, into:, region_id:, **input.slice(:role, :tolerance))
        [pass.song, "record #{names(song, strokes.keys)} into #{place_words(pass)}", outcome(song, pass, strokes),
         kept(song, strokes, input, pass, region_id)]
      end

      def self.kept_beside(song, strokes, input)
        [song, "keep a take of #{names(song, strokes.keys)}", [], kept(song, strokes, input)]
      end

      # Effects of a clip have no lanes; each is named.
      def self.no_lanes!(song, addresses)
        faults = addresses.each_with_index.filter_map do |address, i|
          next unless address.clip_id

          Fault.new("no_lane", "/moves/#{i}/address",
                    "#{song.full_name(address)} has no lane: envelopes in the clip move it, and carriers.")
        end
        raise InvalidInput, faults unless faults.empty?
      end

      # @return [Hash{Address=>Array<Stroke>}]
      def self.strokes(song, input)
        moves = input[:moves].each_with_index.to_h do |move, i|
          InvalidInput.under("/moves/#{i}") { stroked(song, move, input) }
        end
        moves.reject { |_, list| list.empty? }
      end

      def self.stroked(song, move, input)
        address = Inputs.target(song, move["address"])
        Inputs.role(song, address, input)
        grips = grips(move["grips"], input)
        list = grips.each_with_index.map { |grip, i| stroke(song, address, grip, grips[i + 1], input) }
        range = input[:inside_range] ? [song.range.start_tick, song.range.end_tick] : [0, Timing::LAST_TICK]
        [address, list.filter_map { |one| one.cut(*range) }]
      end

      # Where the range ends so does everything.
      def self.stroke(song, address, (samples, finish), following, input)
        one = Perform::Stroke.played(samples, finish, song.tempo, song.parameter(address).scale)
        one = glided(song, one, following, address, input) if input.fetch(:glide_seconds, 0).positive? && !input[:latch]
        grid = input.fetch(:grid_ticks, 0)
        grid.positive? ? one.snapped(song.meters, grid) : one
      end

      # The way back into what held, as it was heard before; not into the next grip.
      def self.glided(song, stroke, following, address, input)
        goal = song.tempo.tick_at(song.tempo.seconds_at(stroke.to) + input[:glide_seconds]).round
        return stroke if following && song.tempo.tick_at(following[0][0][0]) < goal

        stroke.reaching(goal, Heard::Resolver.new(Perform::HandBack.call(song, [address]), address).at(goal))
      end

      def self.into(song, strokes, input)
        apart = input[:separate] && input[:into] == "clip"
        song = separated(song, strokes) if apart
        return [song, nil] unless input[:into] == "carrier"

        # The carrier of the pass where one was made for an earlier lap of it.
        made = input[:carrier_region_id]
        made && song.directory.regions.key?(made) ? [song, made] : carrier_for(song, strokes)
      end

      private_class_method :kept_beside, :strokes, :stroked, :stroke, :glided, :into, :no_lanes!
    end
  end
end
