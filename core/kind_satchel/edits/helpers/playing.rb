# frozen_string_literal: true

module KindSatchel
  module Edits
    # What edits of played moves share.
    module Playing
      # So many names are said; more are counted.
      MOST_NAMES = 2
      LATEST_SECONDS = 360_000

      # Samples in turns as pairs, in order of time, each grip with where it ends: let go, taken up again, or the end
      # of the lap.
      # @return [Array<Array(Array, Float)>]
      def grips(list, input)
        read = list.each_with_index.map do |grip, i|
          InvalidInput.under("/grips/#{i}") { [samples(grip["samples"]), grip["until_seconds"]] }
        end
        read = read.sort_by { |samples, _| samples.first[0] }
        read.each_with_index.map do |(samples, finish), i|
          following = read[i + 1] ? read[i + 1][0][0][0] : nil
          ends = input[:latch] || finish.nil? ? input[:to_seconds] : finish
          finish = [ends, following].compact.min
          finish = [finish, samples.first[0]].max
          samples = samples.take_while { |seconds, _| seconds <= finish } if samples.last[0] > finish
          [samples, finish]
        end
      end

      # @param flat [Array<Float>] seconds and values in turns
      # @raise [InvalidInput]
      def samples(flat)
        raise InvalidInput.of("odd", "/samples", "Samples are seconds and values in turns.") if flat.size.odd?

        numbers = flat.all?(Numeric)
        pairs, at, last, sorted = [], 0, 0, true
        while at < flat.size
          seconds, value = flat[at], flat[at + 1]
          unless numbers && value >= 0 && value <= 1 && seconds >= 0 && seconds <= LATEST_SECONDS
            refuse(at, seconds,
                   value)
          end
          sorted = false if seconds < last
          last = seconds
          pairs << [seconds, value]
          at += 2
        end
        sorted ? pairs : pairs.sort_by.with_index { |(time, _), i| [time, i] }
      end

      # @raise [InvalidInput] for a sample that cannot be, naming it
      def refuse(place, seconds, value)
        if value.is_a?(Numeric) && value.between?(0, 1) && seconds.is_a?(Numeric) && seconds.between?(0, LATEST_SECONDS)
          return
        end

        late = !seconds.is_a?(Numeric) || !seconds.between?(0, LATEST_SECONDS)
        wrong = late ? [place, "Seconds lie outside 0..#{LATEST_SECONDS}."] : [place + 1, "A value lies outside 0..1."]
        raise InvalidInput.of("out_of_range", "/samples/#{wrong[0]}", wrong[1])
      end

      # A new carrier clip for what was played, in whole bars; over the range that repeats where all of it lies in that.
      # @return [Array(Song, String)] and the id of its region
      def carrier_for(song, strokes)
        all = strokes.values.flatten
        from, to = [all.map(&:from).min, all.map(&:to).max]
        from, to = [song.meters.start_of(song.meters.bar_at(from)), song.meters.rounded_up(to)]
        range = song.range
        from, to = [range.start_tick, range.end_tick] if range.on && all.all? do |stroke|
          stroke.from >= range.start_tick && stroke.to <= range.end_tick
        end
        made, = MakeCarrier.call(song, { start_tick: from, length_ticks: to - from, name: "Played" })
        [made, (made.directory.regions.keys - song.directory.regions.keys).first]
      end

      # @return [String] "Cutoff and Drive", "12 parameters"
      def names(song, addresses)
        return "#{addresses.size} parameters" if addresses.size > MOST_NAMES

        addresses.map { |address| song.parameter(address).name }.join(" and ")
      end

      # Where a pass went, in words.
      def place_words(pass)
        homes = homes(pass)
        clips = homes.filter_map { |home| home.clip&.name }.uniq
        return "#{clips.size} clips" if clips.size > MOST_NAMES

        lanes = homes.select(&:track)
        [*clips, *(lanes.any? ? [lanes.size == 1 ? "its lane" : "lanes"] : [])].join(" and ")
      end

      # @return [Array<Directory::Home>] where the pass wrote
      def homes(pass) = pass.envelopes.values.flatten.map { |id| pass.song.directory.envelope(id) }

      # @return [Array<Notice>] what became of the pass
      def outcome(before, pass, strokes)
        held = strokes.keys.select { |address| before.held?(address) }
        samples = strokes.values.flatten.sum { |stroke| stroke.ticks.size }
        points = strokes.keys.sum { |address| points(pass, address) }
        made = "#{PlainText.count(points, 'point')} now, from #{PlainText.count(samples, 'sample')}"
        [Notice.new("thinned", [], made),
         *shared(pass), *missed(pass),
         *(held.any? ? [Notice.new("handed_back", held.map(&:to_s), "#{names(before, held)} handed back")] : [])]
      end

      # How many points the envelopes of a parameter hold now.
      def points(pass, address)
        pass.envelopes.fetch(address, []).sum { |id| pass.song.directory.envelope(id).envelope.points.size }
      end

      # Clips that are heard elsewhere too.
      def shared(pass)
        homes(pass).filter_map(&:clip).uniq(&:id).filter_map do |clip|
          count = pass.song.directory.regions_of_clip(clip.id).size
          if count > 1
            Notice.new("shared", [clip.id],
                       "#{clip.name} is heard in #{count} regions, so it moves in all of them")
          end
        end
      end

      # @return [Array<Notice>] what of it is not as it was played
      def missed(pass)
        [*lost_words(pass), *idle_words(pass), *limits(pass), *taken_in(pass), *homeless(pass)]
      end

      # Where what was played is not heard, or not all of it.
      def limits(pass)
        by = pass.overruled.first(MOST_NAMES).join(" and ")
        list = []
        list << Notice.new("overruled", [], "overruled by #{by}, so it is not heard there") unless by.empty?
        words = "it cannot make all of what was played; there it stays at its limit"
        list << Notice.new("limited", [], words) if pass.limited
        list
      end

      # What was there before, and is no longer.
      def taken_in(pass)
        stilled = pass.stilled.first(MOST_NAMES).join(" and ")
        list = []
        list << Notice.new("replaced", pass.replaced, "a move that was off there is replaced") if pass.replaced.any?
        list << Notice.new("stilled", [], "what moved #{stilled} is taken in and switched off") unless stilled.empty?
        list
      end

      # Where no clip sounds.
      def homeless(pass)
        words = { "lane" => ["no_clip", "where no clip sounds it is in the lane"],
                  "lost" => ["lost", "where the clip does not sound it is left out"] }
        words.slice(*pass.homeless).values.map { |code, text| Notice.new(code, [], text) }
      end

      # What later loops wrote over, and where a move runs once instead.
      def lost_words(pass)
        apart = pass.apart.first(MOST_NAMES).join(" and ")
        [*(unless apart.empty?
             Notice.new("once", [], "#{apart} is made separate where it was played, and the move runs once over it")
           end),
         *(Notice.new("written_over", [], written_over(pass.song, pass.lost_ticks.values.max)) if pass.lost_ticks.any?)]
      end

      # @return [String] "2 bars of what was played are written over"
      def written_over(song, ticks)
        bars = ticks.fdiv(song.meters.at(0).bar_ticks)
        "#{Units.short(bars)} bar#{'s' unless bars == 1} of what was played #{bars == 1 ? 'is' : 'are'} not heard: " \
          "later loops write over it"
      end

      # Where a role can do nothing.
      def idle_words(pass)
        pass.idle.map do |address, role, from, to|
          Notice.new("idle", [address.to_s], idle_at(pass.song, address, role, from, to))
        end
      end

      # @return [String, nil] why a hand is not heard there
      def idle_at(song, address, role, from, to)
        scale = song.parameter(address).scale
        rest = scale.gain? ? "is silent" : "rests at its #{scale.origin.zero? ? 'foot' : 'centre'}"
        "#{song.parameter(address).name} #{rest} from #{song.meters.text(from)} to #{song.meters.text(to)}, where a " \
          "move that #{role}s does " \
          "nothing; let it #{scale.gain? ? 'set' : 'set or shift'}"
      end

      # Regions that were played get a clip of their own where others share it.
      def separated(song, strokes)
        strokes = strokes.reject { |address, _| address.setting? || song.tracks_of(address).empty? }
        ids = strokes.flat_map do |address, list|
          list.flat_map { |stroke| song.tracks_of(address).first.regions_in(stroke.from, stroke.to) }
        end
        shared = ids.uniq.select do |region|
          song.directory.regions_of_clip(region.clip_id).size > 1
        end.group_by(&:clip_id)
        shared.each_value.reduce(song) do |now, regions|
          next now if regions.size == now.directory.regions_of_clip(regions.first.clip_id).size

          SeparateRegions.call(now, { region_ids: regions.map(&:id) }).first
        end
      end

      # What the app keeps beside the song.
      def kept(song, strokes, input, pass = nil, region_id = nil)
        from, to = input.values_at(:from_seconds, :to_seconds).map { |seconds| song.tempo.tick_at(seconds).round }
        moves = strokes.to_h do |address, list|
          ids = pass ? pass.envelopes[address] || [] : []
          bases = ids.to_h { |id| [id, base(pass.bases[id])] }
          [address.to_s,
           { "strokes" => Perform::Takes::Records.strokes(list), "bases" => bases,
             **measured(pass, address, earlier(input, address)) }]
        end
        { "from_tick" => from, "to_tick" => to, "region_id" => region_id, "moves" => moves }
      end

      def base(found) = { **found, "points" => found["points"].map { |point| KindSatchel::Records.point(point) } }

      # What was played of a parameter in earlier laps of the pass; filled in by the app.
      def earlier(input, address) = Perform::Takes::Records.read(input.fetch(:earlier, {}).fetch(address.to_s, []))

      # @param earlier [Array<Stroke>] what was played before it in the pass
      # @return [Hash] how many points its envelopes hold now, how far what is heard lies from what was played, and
      #   what else is to be said
      def measured(pass, address, earlier = [])
        return {} unless pass

        lost = pass.lost_ticks[address]
        said = [*(written_over(pass.song, lost) if lost), *pass.idle.select do |one,|
          one == address
        end.map { |one| idle_at(pass.song, *one) }]
        { "points" => points(pass, address), "difference" => pass.difference(address, earlier), "said" => said }
      end
    end
  end
end
