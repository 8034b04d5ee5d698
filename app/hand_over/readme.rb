# frozen_string_literal: true

# The text that goes along: what the files are, what could not go along, and which controller moves what.
class HandOverReadme
  # @param within [Hash] how far the controllers of each parameter lie from what is heard, as shares of their travel
  def initialize(song, choices, losses, notes, within)
    @within = within
    @song = song
    @choices = choices
    @losses = losses
    @notes = notes
  end

  # @return [String] the text of the file
  def text = [head, limits, losses, notes, controllers].compact.join("\n")

  private

  def head
    bars = @song.meters.bar_at(@song.length_ticks - 1)
    "#{@song.name}\n#{'=' * @song.name.size}\n\n#{bars} bars, #{@song.bpm.round(2)} BPM at the start, " \
      "#{@song.tracks.map(&:name).join(', ')}.\nPositions are bar.beat.tick, 960 ticks to the quarter note.\n"
  end

  def limits
    return unless @choices.limits

    words = { "lanes_only" => "lanes of tracks only", "no_carriers" => "no carrier clips",
              "set_only" => "moves that set only",
              "straight" => "straight lines only", "one_tempo" => "one tempo" }
    given = @choices.limits.to_record
    list = words.select { |key, _| given[key] }.values
    list << "at most #{given['points_per_lane']} points a lane" if given["points_per_lane"]
    list << "at most #{given['points_per_second']} points a second" if given["points_per_second"]
    list << "values of #{given['bits']} bits" if given["bits"]
    "Made to fit: #{list.empty? ? 'anything' : list.join(', ')}.\n"
  end

  def losses
    return if @losses.empty?

    rows = @losses.map do |one|
      next [one["name"], "", "", "", "", one["why"]] if one["left_out"]

      [one["name"], one["points"]&.to_s || "as it is", one["largest_text"], one["mean_text"],
       one["largest"].zero? ? "" : one["position"], one["why"].to_s]
    end
    "What each parameter loses\n\n#{table([['parameter', 'points', 'largest', 'mean', 'where', ''], *rows])}"
  end

  def table(rows)
    widths = rows[0].each_index.map { |i| rows.map { |row| row[i].to_s.size }.max }
    "#{rows.map do |row|
      row.each_with_index.map { |cell, i| cell.to_s.ljust(widths[i]) }.join('  ').rstrip
    end.join("\n")}\n"
  end

  def notes = @notes.empty? ? nil : "#{@notes.join("\n")}\n"

  def controllers
    return unless %w[midi midi_clips midi_regions].any? { |name| @choices[name] }

    rows = @choices.rows.map do |row|
      [@song.full_name(row.address), row.number == "bend" ? "pitch bend" : row.number.to_s, "#{row.bits} bits",
       @within.key?(row.address.to_s) ? percent(@within[row.address.to_s]) : ""]
    end
    head = "Controllers (at most so far from what is heard, in share of their travel; volumes on 7 stay at 127 above " \
           "0 dB)"
    "#{head}\n\n#{table([%w[parameter controller values within], *rows])}"
  end

  # Rounded up: it is a bound.
  def percent(share) = "#{(share * 100).ceil(2)} %"
end
