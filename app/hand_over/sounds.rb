# frozen_string_literal: true

require_relative "../file_names"

# Which sounds a page is to render of a song, and into which files.
class HandOverSounds
  # @param choices [HandOverChoices]
  # @param silent [Array<String>] ids of tracks that are not listened to
  def initialize(choices, silent)
    @choices = choices
    @song = choices.song
    @silent = silent
  end

  # @return [Array<Hash>] what is rendered together: "files", one for each of "taps", the tracks that are taken by
  #   themselves, or just one for the whole; "clip_id" for a clip by itself
  def to_record = @choices["sounds"].flat_map { |sound| send(sound["what"], base(sound)) }

  private

  def base(sound)
    { "what" => sound["what"], "rate" => sound["rate"], "bits" => sound["bits"], "from_tick" => @choices.from,
      "to_tick" => @choices.to,
      "taps" => [], "silent" => sound["listening"] ? @silent : [] }
  end

  def song(base) = [base.merge("files" => ["#{FileNames.stem(@song.name)}.wav"])]

  # What leaves the channel of each.
  def tracks(base)
    list = @song.tracks.reject { |track| %w[carrier master].include?(track.kind) || base["silent"].include?(track.id) }
    list.empty? ? [] : [base.merge("taps" => list.map(&:id), "files" => files("stems", list))]
  end

  # Each once, on the track where it lies first.
  def clips(base)
    placed = @song.clips.values.reject(&:carrier?).select { |clip| @song.directory.regions_of_clip(clip.id).any? }
    placed.zip(files("loops", placed)).map do |clip, file|
      owner = @song.directory.regions_of_clip(clip.id).first.track.id
      base.merge("from_tick" => 0, "to_tick" => clip.length_ticks, "taps" => [owner], "silent" => [],
                 "clip_id" => clip.id, "files" => [file])
    end
  end

  def files(folder, list) = FileNames.each_once(list.map(&:name)).map { |name| "#{folder}/#{name}.wav" }
end
