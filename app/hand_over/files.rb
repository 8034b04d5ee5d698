# frozen_string_literal: true

require_relative "choices"
require_relative "read_back"
require_relative "sheet"
require_relative "readme"
require_relative "../midi_file"
require_relative "../packed_song"
require_relative "../spread"

# Writes what is handed over of a song into a folder, and reads it back.
class HandOverFiles
  include KindSatchel

  # The same into a folder that comes to be whole, or not at all.
  # @param goal [String]
  # @return [Hash] as {#write}
  def self.to_folder(choices, goal, store, &)
    part = "#{goal}.#{Process.pid}.part"
    FileUtils.mkdir_p(part)
    found = new(choices, part, store, &).write
    File.rename(part, goal)
    found
  ensure
    FileUtils.rm_rf(part)
  end

  # @param choices [HandOverChoices]
  # @param folder [String]
  # @param store [SoundStore]
  # @yieldparam share [Float] 0..1
  # @yieldparam words [String]
  def initialize(choices, folder, store, &on_progress)
    @choices = choices
    @song = choices.song
    @folder = folder
    @store = store
    @on_progress = on_progress
    @notes = []
    @within = {}
  end

  # @return [Hash] "losses", "notes"
  def write
    @on_progress.call(0.05, "fitting")
    @baked = choices.limits && HandOver::Bake.new(@song, choices.limits).call(Spread.map(lambda { |share|
      @on_progress.call(0.05 + (0.35 * share), "fitting")
    }))
    out = @baked&.song || @song
    documents(out)
    midi(out)
    @on_progress.call(0.8, "writing tables")
    csv(out)
    file("sheet.html") { |path| File.write(path, HandOverSheet.new(out, losses).html) } if choices["sheet"]
    file("README.txt") { |path| File.write(path, readme) } if several?
    { "losses" => losses, "notes" => @notes }
  end

  private

  attr_reader :choices

  def losses = @losses ||= (@baked&.losses || []).map { |loss| loss.to_record(@song) }
  def stem = FileNames.stem(@song.name)
  def file(name) = yield(File.join(@folder, name))

  def documents(out)
    @on_progress.call(0.42, "writing the song")
    document("#{stem}.satchel.json", @song) if choices["document"]
    document("#{stem}-baked.satchel.json", out) if choices["baked"]
    return unless choices["packed"]

    text = JSON.pretty_generate(Document.dump(@song))
    file("#{stem}.satchel.zip") { |path| PackedSong.write(path, text, @song.sounds, @store) }
    @store.missing(@song).each do |one|
      @notes << "#{one['sound']} is not in the store; it is left out of the packed song."
    end
  end

  def document(name, song)
    text = JSON.pretty_generate(Document.dump(song))
    ReadBack.document!(text, song)
    file(name) { |path| File.write(path, text) }
  end

  def midi(out)
    whole("#{stem}.mid", out) if choices["midi"]
    clips if choices["midi_clips"]
    regions(out) if choices["midi_regions"]
    left = choices.without_controller
    return if left.empty? || %w[midi midi_clips midi_regions].none? { |name| choices[name] }

    @notes << "No controller is left for #{left.map { |address| @song.full_name(address) }.join(', ')}."
  end

  def midi_map = Spread.map(->(share) { @on_progress.call(0.45 + (0.3 * share), "writing MIDI") })

  # @param only [String, nil] the one track of it
  def whole(name, song, from = choices.from, to = choices.to, only: nil)
    map = only ? Spread.map : midi_map
    ways = choices.ways(song)
    score = HandOver::Score.new(song, only ? HandOver::Score::Ways.new(*ways.to_a[0..2], [only]) : ways, from:, to:)
    writer = Formats::MidiWriter.new(score)
    tracks = score.parts(map) { |part| [ReadBack.track!(writer.track(part), part), ReadBack.kept(part), part.within] }
    tracks.each { |_, _, within| @within.merge!(within) { |_, one, other| [one, other].max } }
    bytes = writer.file(tracks.map(&:first))
    ReadBack.midi!(bytes, score, tracks.map { |track| track[1] })
    file(name) { |path| File.binwrite(path, bytes) }
  end

  # Each clip once, under its own name.
  def clips
    each_named("clips", @song.clips.values.reject(&:carrier?)) do |clip, name|
      alone = HandOver::OneClip.of(@song, clip.id) or next @notes << "#{clip.name} lies nowhere; it is left out."
      whole("clips/#{name}.mid", alone, 0, alone.length_ticks,
            only: @song.directory.regions_of_clip(clip.id).first.track.id)
    end
  end

  # Each region as it is heard in the song, by where it begins.
  def regions(out)
    placed = out.tracks.flat_map { |track| track.regions.map { |region| [track, region] } }
    placed = placed.reject { |_, region| out.clip(region.clip_id).carrier? || region.muted }
    each_named("regions", placed, lambda { |(track, region)|
      "#{track.name} #{out.meters.text(region.start_tick)[/\A\d+\.\d+/]}"
    }) do |(track, region), name|
      whole("regions/#{name}.mid", out, region.start_tick, region.end_tick, only: track.id)
    end
  end

  def each_named(folder, list, name = lambda(&:name))
    Dir.mkdir(File.join(@folder, folder)) if list.any?
    list.zip(FileNames.each_once(list.map(&name))).each_with_index do |(one, file), i|
      @on_progress.call(0.6 + (0.2 * i / list.size), "writing #{folder}")
      yield one, file
    end
  end

  def csv(out)
    return if choices["csv"] == "none"

    addresses = choices["csv"] == "drawn" ? out.automated : out.sounded
    if choices.limits&.track_ids
      addresses &= choices.limits.track_ids.flat_map do |id|
        addresses.select { |one| one.owner_id == id }
      end
    end
    lines = table(out, addresses)
    file("moves.csv") do |path|
      rows = 0
      File.open(path, "w") { |goal| lines.each { |line| goal.write(line) && rows += 1 } }
      ReadBack.csv!(path, rows)
    end
  end

  def table(out, addresses)
    stretch = [out, addresses, choices.from, choices.to]
    case choices["csv"]
    when "drawn" then HandOver::Table.drawn(out, addresses)
    when "points" then HandOver::Table.points(*stretch)
    else HandOver::Table.samples(*stretch, choices["step_ticks"])
    end
  end

  def several? = Dir[File.join(@folder, "**", "*")].count { |path| File.file?(path) } + choices["sounds"].size > 1

  def readme = HandOverReadme.new(@song, choices, losses, @notes, @within).text
end
