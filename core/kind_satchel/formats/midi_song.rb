# frozen_string_literal: true

module KindSatchel
  module Formats
    # A song made of what a MIDI file holds: a track for every part that plays notes, one clip on it, and its
    # controllers as envelopes in that clip, thinned.
    class MidiSong
      # One part of a file: `notes` as [tick, length, pitch, velocity], `controls` by the parameter they move as
      # [tick, value 0..1, for "bend" -1..1], all in ticks of the file; `bend_semitones` is how far pitch bend goes,
      # nil where nothing is said.
      Part = Struct.new(:name, :channel, :notes, :controls, :bend_semitones)
      # `tempo` as [tick, bpm], `meters` as [tick, beats, unit], `markers` as [tick, name].
      Score = Struct.new(:ppq, :parts, :tempo, :meters, :markers, :left_out)

      DRUMS = 10
      # Sounds of the general drum map that the kit has under another note (General MIDI 1, from memory).
      KIT = { 35 => 36, 40 => 38, 44 => 42, 41 => 75, 43 => 75, 45 => 75, 47 => 75, 48 => 75, 50 => 75, 49 => 46,
              51 => 46, 57 => 46, 59 => 46,
              69 => 70, 82 => 70, 76 => 75, 77 => 75, 54 => 70 }.freeze
      # How far a pitch bend goes, in semitones, unless a file says otherwise (General MIDI 1).
      BEND_SEMITONES = 2
      # Controllers are thinned to this share of the travel.
      TOLERANCE = 0.005
      # Values further apart than this are steps; nearer ones a line.
      LINE_TICKS = 240
      MOST_TRACKS = 200

      # What could not be taken, in words.
      # @return [Array<String>]
      attr_reader :left_out

      # @param score [Score]
      # @param name [String]
      def initialize(score, name)
        @score = score
        @name = name
        @left_out = score.left_out.dup
        @next_id = 1
      end

      # @return [Song]
      # @raise [InvalidInput] for a file without notes
      def song
        parts, silent = @score.parts.partition { |part| part.notes.any? }
        silent.select do |part|
          part.controls.any?
        end.each { |part| @left_out << "the controllers of #{part.name.inspect}, which plays no notes" }
        raise InvalidInput.of("no_notes", "", "The file holds no notes.") if parts.empty?

        @left_out << "#{parts.size - MOST_TRACKS} parts beyond the first #{MOST_TRACKS}" if parts.size > MOST_TRACKS
        made = parts.first(MOST_TRACKS).each_with_index.map { |part, i| track(part, i) }
        range = PlayRange.new(on: false, start_tick: 0, end_tick: meters.start_of(5))
        Song.new(name: @name, meters:, bpm: 120, range:, points_follow: false, tracks: [*made.map(&:first), *ends],
                 clips: made.to_h { |_, clip| [clip.id, clip] }, markers:, next_id: @next_id).with_tempo(tempo)
      end

      private

      def meters
        @meters ||= begin
          list = @score.meters.filter_map do |tick, beats, unit|
            [ticks(tick), meter(beats, unit)] if meter(beats, unit)
          end
          list.unshift([0, list.first && list.first[0].zero? ? list.first[1] : Timing::Meter.new(beats: 4, unit: 4)])
          Timing::Meters.from_ticks(list.first(Timing::Meters::MOST))
        end
      end

      def meter(beats, unit)
        Timing::Meter.new(beats:, unit:)
      rescue InvalidInput
        @left_out |= ["the time signature #{beats}/#{unit}"]
        nil
      end

      def tempo
        points = @score.tempo.map do |tick, bpm|
          Timing::TempoPoint.new(tick: ticks(tick), bpm: bpm.clamp(10, 400), shape: "hold")
        end
        points = points.reverse.uniq(&:tick).reverse
        unless points.first&.tick&.zero?
          points.unshift(Timing::TempoPoint.new(tick: 0, bpm: points.first&.bpm || 120,
                                                shape: "hold"))
        end
        Timing::TempoMap.new(points: Timing::TempoMap.plain(points))
      end

      # The first of those on one tick.
      def markers
        places = @score.markers.map { |tick, name| [ticks(tick), name.strip[0, Song::MOST_NAME]] }
        places = places.sort_by.with_index { |(tick, _), i| [tick, i] }
        places.uniq(&:first).map do |tick, name|
          Marker.new(id: id("marker"), tick:, name: name.empty? ? "Marker" : name)
        end
      end

      def ticks(tick) = (tick * Timing::PPQ / @score.ppq.to_f).round

      def id(word) = "#{word}-#{@next_id}".tap { @next_id += 1 }

      def track(part, place)
        start = meters.start_of(meters.bar_at(ticks(part.notes.map(&:first).min)))
        notes = notes(part, start)
        finish = finish(notes, start)
        track_id, device = id("track"), device(part, notes)
        clip = clip(part, notes, [start, finish], track_id, device)
        region = Region.fresh(id: id("region"), clip_id: clip.id, start_tick: start, length_ticks: finish - start)
        made = Track.new(id: track_id, name: clip.name, kind: "notes", hue: Track::HUES[place % Track::HUES.size],
                         output: "master",
                         devices: [device, channel], lanes: [], regions: [region])
        [made, clip]
      end

      # In ticks of the clip, which begins at `start`.
      def notes(part, start)
        list = part.notes.map do |tick, length, pitch, velocity|
          pitch = KIT.fetch(pitch, pitch) if part.channel == DRUMS
          at = ticks(tick)
          Note.new(tick: at - start, length_ticks: [ticks(tick + length) - at, 1].max, pitch:,
                   velocity: velocity.clamp(1, 127))
        end
        Notes.settled([], list)
      end

      # In whole bars, at least one.
      def finish(notes, start)
        last = notes.map { |note| note.tick + note.length_ticks }.max
        [meters.rounded_up(start + last), meters.start_of(meters.bar_at(start) + 1)].max
      end

      # A kit for drums; else by how the part plays: one note at a time, short ones, long ones.
      def device(part, notes)
        return Device.new(id: "kit", type: "drum-kit", values: {}, held: {}) if part.channel == DRUMS

        together = notes.each_cons(2).any? { |one, other| one.tick + one.length_ticks > other.tick + 30 }
        mean = notes.sum(&:length_ticks) / notes.size
        type = together ? (mean > 960 ? "pad-synth" : "pluck") : "mono-synth"
        Device.new(id: "instrument", type:, values: {}, held: {})
      end

      def channel = Device.new(id: "channel", type: "channel", values: {}, held: {})

      def ends
        [Track.new(id: "master", name: "Master", kind: "master", hue: "indigo", output: nil, devices: [channel],
                   lanes: [], regions: [])]
      end

      def clip(part, notes, stretch, track_id, device)
        name = part.name.strip.empty? ? "Part #{part.channel}" : part.name.strip[0, Song::MOST_NAME]
        envelopes = part.controls.each_key.filter_map do |kind|
          envelope(part, kind, stretch, track_id, device)
        end.uniq(&:target)
        Clip.new(id: id("clip"), name:, kind: "notes", length_ticks: stretch[1] - stretch[0], notes:, audio: nil,
                 envelopes:)
      end

      def envelope(part, kind, stretch, track_id, device)
        unless MidiControls::OF_CHANNEL.include?(kind) || device.type_rules.parameters[kind]&.automatable
          return missing(kind, part.controls[kind],
                         device)
        end

        target = Address.new(owner_id: track_id,
                             device_id: MidiControls::OF_CHANNEL.include?(kind) ? "channel" : device.id,
                             parameter_id: kind)
        points = points(part, kind, *stretch)
        return if points.empty?

        Envelope.fresh(id: id("envelope"), target:, role: "set", clock: "once", points:)
      end

      def missing(kind, values, device)
        @left_out << "#{values.size} event#{'s' if values.size > 1} for #{kind}, which #{device.type_rules.name} " \
                     "does not have"
        nil
      end

      def points(part, kind, start, finish)
        list = part.controls[kind].map { |tick, value| [[ticks(tick) - start, 0].max, normalised(kind, value, part)] }
        list.select! { |tick, _| tick <= finish - start }
        runs = list.slice_when { |(before, _), (after, _)| after - before > LINE_TICKS }
        runs.flat_map { |run| thinned(run) }
      end

      # Controller 7 by 40 log10, controller 10 from 1 to 127 (MIDI Manufacturers Association, recommended practice),
      # pitch bend by its range.
      def normalised(kind, value, part)
        case kind
        when "volume" then if value.positive?
                             Devices::CHANNEL.parameter("volume").scale.normalised(40 * Math.log10(value)).clamp(
                               0.0, 1.0
                             )
                           else
                             0.0
                           end
        when "pan" then ([(value * 127).round, 1].max - 1) / 126.0
        when "bend" then (0.5 + (value * (part.bend_semitones || BEND_SEMITONES) / 48.0)).clamp(0.0, 1.0)
        else value
        end
      end

      def thinned(run)
        kept = run.size < 3 ? run.each_index : Thinning.keep(run.map(&:first), run.map(&:last), TOLERANCE)
        places = kept.to_a
        places.map do |i|
          shape = i == places.last ? Shapes::Hold::PLAIN : Shapes::Straight::PLAIN
          Point.new(tick: run[i][0], value: run[i][1], shape:)
        end
      end
    end
  end
end
