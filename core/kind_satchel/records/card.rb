# frozen_string_literal: true

module KindSatchel
  # What a list of songs shows of one: how long it is, its tempo and time signature, and a small picture of where its
  # tracks play.
  module Card
    # The picture has so many tracks at the most, and so many cells across.
    ROWS = 12
    CELLS = 48

    module_function

    # From records, so that a song need not be put together for it.
    # @param head [Hash] the song's own record
    # @param tracks [Array<Hash>] their records
    # @param regions [Array<Hash>] theirs
    # @param lanes [Array<Hash>] the records of lanes for the tempo
    # @return [Hash] `seconds`, `bpm` at the start, `meter` as text, and `rows`: hue, and a 1 or 0 for each cell
    def of(head, tracks, regions, lanes = [])
      fields = Records.read_head(head)
      ticks = fields[:meters].rounded_up([regions.map do |one|
        one["start_tick"] + one["length_ticks"]
      end.max || 0, 1].max)
      signature = fields[:meters].at(0)
      tempo = tempo(fields[:bpm], lanes)
      { "seconds" => tempo.seconds_at(ticks).round(3), "bpm" => tempo.bpm_at(0).round(3),
        "meter" => "#{signature.beats}/#{signature.unit}", "rows" => rows(tracks, regions, ticks) }
    end

    # Of a lane that is more than held and straight stretches only the resting tempo is told.
    def tempo(bpm, lanes)
      lane = lanes.map do |record|
        Records.read_envelope(record)
      end.find { |one| one.acts? && one.role == "set" && one.plain? && !one.lfo? }
      (lane && TempoLane.map(apart(lane.points))) || Timing::TempoMap.steady(bpm)
    end

    # Where the tempo jumps, the later of two points a tick later: a list of tempos has one to a tick.
    def apart(points)
      points.each_with_index.map do |point, i|
        i.positive? && points[i - 1].tick == point.tick ? point.with(tick: point.tick + 1) : point
      end
    end

    def rows(tracks, regions, ticks)
      by_owner = regions.group_by { |one| one["owner"] }
      played = tracks.sort_by { |track| track["place"] }.select { |track| by_owner.key?("track/#{track['id']}") }
      played.first(ROWS).map { |track| [track["hue"], cells(by_owner.fetch("track/#{track['id']}"), ticks)] }
    end

    def cells(regions, ticks)
      text = "0" * CELLS
      regions.each do |region|
        from, to = [region["start_tick"], region["start_tick"] + region["length_ticks"]].map do |tick|
          tick * CELLS.fdiv(ticks)
        end
        (from.floor...[to.ceil, CELLS].min).each { |cell| text[cell] = "1" }
      end
      text
    end
    private_class_method :tempo, :apart, :rows, :cells
  end
end
