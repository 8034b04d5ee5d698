# frozen_string_literal: true

require_relative "../db/demo_song"

# A generated big song: 64 tracks, 2,000 regions, 10,000 envelopes, 200,000 points. The same every time. With BENCH=small it is a small one, by
# which it is tried whether every section runs.
module BigSong
  include KindSatchel

  BAR = 3840
  SMALL = ENV["BENCH"] == "small"
  TRACKS = SMALL ? 8 : 62
  REGIONS = SMALL ? 24 : 2000
  ENVELOPES = 5
  POINTS = 20
  DEVICES = { "synth" => ["mono-synth", {}], "filter" => ["filter", {}], "drive" => ["drive", {}] }.freeze
  TARGETS = %w[synth/cutoff synth/resonance synth/sub filter/cutoff drive/mix channel/volume channel/pan channel/send-hall].freeze

  module_function

  def build
    random = Random.new(4)
    writer = SongWriter.new(name: "Big", bpm: 120, range: [0, 8 * BAR])
    TRACKS.times { |t| writer.track "t#{t}", "Track #{t + 1}", "notes", Track::HUES[t % 6], devices: DEVICES }
    writer.track "hall", "Hall", "return", "lichen", devices: { "reverb" => ["reverb", {}] }
    writer.track "master", "Master", "master", "indigo", devices: {}
    REGIONS.times { |r| place(writer, r, random) }
    writer.song
  end

  # Every region has a clip of its own, of four bars.
  def place(writer, number, random)
    track = "t#{number % TRACKS}"
    writer.clip "c#{number}", "Clip #{number}", 4, notes: Array.new(16) { |i|
      Note.new(tick: i * 960, length_ticks: 480, pitch: 40 + random.rand(24), velocity: 90)
    }
    writer.region track, "c#{number}", (number / TRACKS * 4) + 1, 4
    TARGETS.sample(ENVELOPES, random:).each { |target| writer.move("c#{number}", "#{track}/#{target}", "set", points(random)) }
  end

  def points(random)
    Array.new(POINTS) { |i| [i * 16.0 / POINTS, random.rand, [:hold, :straight, (random.rand * 2) - 1].sample(random:)] }
  end

  private_class_method :place, :points
end
