# frozen_string_literal: true

# The text that goes along: what the files are, what could not go along, and which controller moves what.
class HandOverReadme
  def initialize(song, choices, losses, notes)
    @song = song
    @choices = choices
    @losses = losses
    @notes = notes
  end

  def text = [head, limits, losses, notes, controllers].compact.join("\n")

  private

  def head
    bars = @song.meters.bar_at(@song.length_ticks - 1)
    "#{@song.name}\n#{'=' * @song.name.size}\n\n#{bars} bars, #{@song.bpm.round(2)} BPM at the start, " \
      "#{@song.tracks.map(&:name).join(', ')}.\nPositions are bar.beat.tick, 960 ticks to the quarter note.\n"
  end

  def limits
    return unless @choices.limits

    words = { "lanes_only" => "lanes of tracks only", "no_carriers" => "no carrier clips", "set_only" => "moves that set only",
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
      [one["name"], one["points"]&.to_s || "as it is", one["largest_text"], one["mean_text"], one["largest"].zero? ? "" : one["position"], one["why"].to_s]
    end
    "What each parameter loses\n\n#{table([%w[parameter points largest mean where], *rows])}"
  end

  def table(rows)
    widths = (0...6).map { |i| rows.map { |row| row[i].to_s.size }.max }
    "#{rows.map { |row| row.each_with_index.map { |cell, i| cell.to_s.ljust(widths[i]) }.join('  ').rstrip }.join("\n")}\n"
  end

  def notes = @notes.empty? ? nil : "#{@notes.join("\n")}\n"

  def controllers
    return unless %w[midi midi_clips midi_regions].any? { |name| @choices[name] }

    rows = @choices.rows.map do |row|
      [@song.full_name(row.address), row.number == "bend" ? "pitch bend" : row.number.to_s, "#{row.bits} bits"]
    end
    "Controllers (within #{(@choices['error'] * 100).round(2)} % of their travel)\n\n#{table([%w[parameter controller values], *rows])}"
  end
end
