# frozen_string_literal: true

module KindSatchel
  # A whole song. `tracks` from the top down, the master last; `clips` by id; `next_id` numbers what is made next.
  # `range` is the stretch that playing repeats: a {PlayRange}. With `points_follow`, moving, copying or removing
  # regions carries the stretch of lane above them along. `meters` are its time signatures by bar, `markers` named
  # places, in order. `bpm` is its resting tempo, `held_bpm` the one a hand holds it at, nil for none; what moves it
  # is told by {#tempo}. `set_aside` are loose ends that are meant to be so.
  class Song < Value.of(:name, :meters, :bpm, :held_bpm, :range, :points_follow, :next_id, :tracks, :clips, :markers,
                        :set_aside)
    include Names
    include Hands

    def initialize(markers: [], held_bpm: nil, set_aside: [], **fields) = super

    class << self
      # Works the tempo of a song out; set where envelopes are.
      # @return [#call]
      attr_accessor :clock
    end

    MOST_NAME = 120
    MOST_REMEMBERED = 32

    def check
      unless name.is_a?(String) && name.strip.size.between?(1, MOST_NAME)
        fault!("bad_name", "/name", "A name has 1 to #{MOST_NAME} characters.")
      end
      whole!("/next_id", next_id, 1)
      [["/bpm", bpm], ["/held_bpm", held_bpm]].each do |path, number|
        number!(path, number, Timing::TempoPoint::RANGE) if number || path == "/bpm"
      end
      [tracks, clips, markers, set_aside].each(&:freeze)
      check_markers
    end

    # @return [SetAside, nil] what was said of a loose end
    def aside(check_id, key)
      memo(:asides) { set_aside.to_h { |one| [[one.check_id, one.key], one] } }[[check_id, key]]
    end

    # Recorded sounds that its clips and samplers play.
    # @return [Array<String>] as documents name them
    def sounds
      owners = [*tracks, *clips.values]
      [*clips.each_value.filter_map { |clip| clip.audio&.sound }, *owners.flat_map(&:devices).filter_map(&:sound)].uniq
    end

    # The tempo of the whole song, and with it the bridge between ticks and seconds; all that moves it taken in. It
    # answers what {Timing::TempoMap} does.
    def tempo = memo(:tempo) { Song.clock.call(self) }

    # The song with a tempo of held and straight stretches: the first is its resting one, more are a lane on the master.
    # @param map [Timing::TempoMap]
    def with_tempo(map)
      master = tracks.last
      others = master.lanes.reject { |lane| lane.target == Address.tempo }
      points = map.points.size > 1 ? TempoLane.points(map.points) : []
      lane = points.empty? ? [] : [TempoLane.fresh(points)]
      with(bpm: map.points.first.bpm, tracks: [*tracks[0..-2], master.with(lanes: [*others, *lane])])
    end

    # @return [Directory] where everything stands
    def directory = memo(:directory) { Directory.new(self) }

    # @return [Track]
    # @raise [NotFound]
    def track(id) = directory.track(id)

    # By what bars and beats of an owner's own time are counted: of a clip by its own signature, else by that of the
    # song where it first lies; of a track's lanes by those of the song.
    # @param owner [Clip, Track]
    # @return [Timing::Meters]
    def meters_of(owner)
      return meters unless owner.is_a?(Clip)

      first = directory.regions_of_clip(owner.id).map { |placed| placed.region.start_tick }.min
      Timing::Meters.steady(owner.meter || meters.at(first || 0))
    end

    # The chain that a device's parameter belongs to.
    # @return [Track, Clip]
    # @raise [NotFound]
    def owner(address) = address.clip_id ? clip(address.clip_id) : track(address.owner_id)

    # What has a parameter: see {Owners}.
    def owned(address) = Owners.of(self, address)

    # The tracks on which what moves a parameter is in its own place.
    # @return [Array<Track>]
    def tracks_of(address) = owned(address).tracks

    # Lanes for a parameter.
    # @return [Array<Envelope>]
    def lanes_of(address) = owned(address).lanes

    # @return [Array<Track>] into which others send
    def returns = memo(:returns) { tracks.select { |track| track.kind == "return" } }

    # @raise [NotFound]
    def clip(id)
      clips.fetch(id) { raise NotFound.of("unknown_clip", "/clip_id", "There is no clip #{id.inspect} in this song.") }
    end

    # @example
    #   song.parameter(Address.parse("rope-bass/synth/cutoff")).scale.text(0.5) #=> "735 Hz"
    # @param address [Address]
    # @return [Parameter]
    # @raise [NotFound] naming what is missing
    def parameter(address) = owned(address).parameter

    # @return [Parameter, nil] nil where the address names nothing
    def parameter?(address)
      parameter(address)
    rescue NotFound
      nil
    end

    # The resting value of a parameter, normalised. No envelope and no hand that holds it changes it.
    # @param address [Address]
    def knob(address) = owned(address).knob

    # What makes a value of what a lane that trims gives: value * factor + offset.
    # @param lane [Envelope]
    # @param knob [Float, nil] what the knob comes to, where it does not rest
    # @return [Array(Float, Float), nil] factor and offset; nil for a lane that does not trim
    def trim_line(lane, knob = nil)
      return unless lane.trims?

      parameter = parameter(lane.target)
      Roles::Trim.new(parameter.default).line(parameter.scale, knob || self.knob(lane.target))
    end

    # A track and all it sounds into, up to the master.
    # @return [Array<Track>]
    def way_out(track) = track.output ? [track, *way_out(track(track.output))] : [track]

    # All that have devices.
    # @return [Array<Track, Clip>]
    def chains = tracks + clips.each_value.select { |clip| clip.devices.any? }

    # Every parameter of a track's, or a clip's, chain with its address, in the order in which people see them.
    # @return [Array<Array(Address, Parameter)>]
    def parameters_of(owner)
      owner.devices.flat_map do |device|
        parameter_ids(owner, device).map do |id|
          address = Address.new(owner_id: owner.chain_id, device_id: device.id, parameter_id: id)
          [address, parameter(address)]
        end
      end
    end

    # Addresses of parameters that an envelope acts on, the ones switched off included; what points at nothing is left
    # out.
    # @return [Array<Address>]
    def automated
      memo(:automated) do
        directory.envelopes.values.map { |home| home.envelope.target }.uniq.select { |target| parameter?(target) }
      end
    end

    # Addresses of what a sound engine is told the values of, tick by tick: all of a device that something acts on, or
    # that is driven.
    # @return [Array<Address>]
    def sounded
      memo(:sounded) do
        driven = directory.driven.select { |target| parameter?(target) }
        (automated | driven).reject do |address|
          address.setting? || address.song? || owner(address).device(address.device_id).type_rules.role == "macros"
        end
      end
    end

    # @return [Integer] the tick at which the last region ends, in whole bars, at least one
    def length_ticks
      memo(:length_ticks) do
        last = tracks.filter_map { |track| track.regions.last&.end_tick }.max || 0
        meters.rounded_up([last, 1].max)
      end
    end

    # The next song; what only its head changed, its directory still finds.
    def with(tempo: nil, **changes)
      return with(**changes).with_tempo(tempo) if tempo

      known = @memo[:directory]
      song = super(**changes)
      song.known_directory(known) if known && !song.equal?(self) && !changes.key?(:tracks) && !changes.key?(:clips)
      song
    end

    # The next song with one track replaced.
    def with_track(track)
      others = tracks.map { |other| other.id == track.id ? track : other }
      found_again(with(tracks: others)) { |found| found.with_track(track) }
    end

    # The next song with one clip replaced or added.
    def with_clip(clip) = found_again(with(clips: clips.merge(clip.id => clip))) { |found| found.with_clip(clip) }

    # The next song with what has a chain replaced.
    # @param owner [Track, Clip]
    def with_owner(owner) = owner.is_a?(Clip) ? with_clip(owner) : with_track(owner)

    protected

    # Takes over a directory that was made from another song's.
    def known_directory(directory) = @memo[:directory] = directory

    private

    # A directory at hand is brought up to date rather than made again.
    def found_again(song)
      known = @memo[:directory]
      song.known_directory(yield(known)) if known
      song
    end

    # In the order in which people see them, sends to every return among them.
    def parameter_ids(owner, device)
      ids = device.type_rules.parameters.keys
      ids -= Devices::MASTER_ONLY if device.type == "channel" && owner.kind != "master"
      owner.is_a?(Track) && owner.sounds_itself? ? ids + returns.flat_map { |to| Devices.send_ids(device, to.id) } : ids
    end

    def check_markers
      return if markers.each_cons(2).all? { |one, other| one.tick < other.tick }

      fault!("unsorted", "/markers", "Markers stand in order, one to a place.")
    end
  end
end
