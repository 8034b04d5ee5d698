# frozen_string_literal: true

require "erb"

# A song on one page, for whoever goes on with it: its tracks, tempo, chains with their settings, and every move as a
# picture.
class HandOverSheet
  include KindSatchel

  TEMPLATE = File.expand_path("sheet.erb", __dir__)
  WIDTH, HEIGHT = 640, 64

  # @param song [Song]
  # @param losses [Array<Hash>] see {HandOver::Loss}
  def initialize(song, losses)
    @song = song
    @losses = losses
  end

  # @return [String] the whole page
  def html = ERB.new(File.read(TEMPLATE), trim_mode: "-").result(binding)

  private

  attr_reader :song, :losses

  def h(text) = ERB::Util.html_escape(text)

  # @return [Array<Array(String, String)>] parameter and value
  def settings(device)
    device.type_rules.parameters.values.filter_map do |parameter|
      value = device.values[parameter.id]
      [parameter.name, parameter.scale.text(value)] if value
    end
  end

  def tempo
    ticks = [0, *song.tempo.changes(0, song.length_ticks).map(&:round)].uniq.first(200)
    ticks.map do |tick|
      [song.meters.text(tick), song.tempo.bpm_at(tick).round(2), song.tempo.seconds_at(tick).round(3)]
    end
  end

  def moves(track) = track.lanes.select { |lane| song.parameter?(lane.target) }
  def clips = song.clips.values.select { |clip| clip.envelopes.any? }

  # @return [String] a picture of an envelope in its own time
  def picture(envelope, to)
    least, most = Roles.full(envelope.role)
    corners = Heard::Outline.of_envelope(envelope, to: to + 1).each_slice(2).to_a
    return "" if corners.empty?

    corners = [[0, corners[0][1]], *corners, [to, corners[-1][1]]].select { |tick, _| tick <= to }
    points = corners.map do |tick, value|
      "#{(tick * WIDTH / to.to_f).round(1)},#{(HEIGHT - ((value - least) / (most - least) * HEIGHT)).round(1)}"
    end
    "<svg viewBox='0 -2 #{WIDTH} #{HEIGHT + 4}' role='img' aria-label='#{h(song.parameter_name(envelope.target))}'>" \
      "<polyline points='#{points.join(' ')}'/></svg>"
  end

  def words(envelope)
    scale = song.parameter(envelope.target).scale
    rules = envelope.role_rules
    ends = envelope.points.map(&:value).minmax.compact.map { |value| rules.amount_text(scale, envelope.amount(value)) }
    [envelope.role, envelope.lfo? ? "LFO" : "#{envelope.points.size} points", ends.uniq.join(" to "),
     envelope.on ? nil : "off"].compact.reject(&:empty?).join(", ")
  end
end
