# frozen_string_literal: true

module KindSatchel
  module HandOver
    # A clip by itself: once, from tick 0, with the moves it holds; no lane, no carrier, no other region acts.
    module OneClip
      module_function

      # @param song [Song]
      # @param clip_id [String]
      # @return [Song, nil] as long as the clip; nil for a clip that lies nowhere
      # @raise [NotFound]
      def of(song, clip_id)
        clip = song.clip(clip_id)
        placed = song.directory.regions_of_clip(clip_id).first or return
        region = Region.fresh(id: "alone", clip_id:, start_tick: 0, length_ticks: clip.length_ticks)
        tracks = song.tracks.map { |track| track.with(lanes: [], regions: track.id == placed.track.id ? [region] : []) }
        bpm = song.tempo.bpm_at(placed.region.start_tick).clamp(Timing::TempoPoint::RANGE)
        meters = Timing::Meters.steady(clip.meter || song.meters.at(placed.region.start_tick))
        song.with(name: clip.name, tracks:, clips: { clip_id => clip }, bpm:, held_bpm: nil, meters:, markers: [],
                  set_aside: [])
      end
    end
  end
end
