# frozen_string_literal: true

module KindSatchel
  # A whole song. `tracks` from the top down, the master last; `clips` by id; `next_id` numbers what is made next.
  # `range` is the stretch that playing repeats: a {PlayRange}. With `points_follow`, moving, copying or removing regions
  # carries the stretch of lane above them along.
  class Song < Value.of(:name, :meter, :tempo, :range, :points_follow, :next_id, :tracks, :clips)
    # A stretch of song time, and whether playing stays inside it.
    class PlayRange < Value.of(:on, :start_tick, :end_tick)
      def check
        whole!("/start_tick", start_tick)
        whole!("/end_tick", end_tick, 1)
        fault!("out_of_range", "/end_tick", "A range ends after it starts.") unless end_tick > start_tick
      end
    end

    MOST_NAME = 120

    def check
      fault!("bad_name", "/name", "A name has 1 to #{MOST_NAME} characters.") unless name.is_a?(String) && name.strip.size.between?(1, MOST_NAME)
      whole!("/next_id", next_id, 1)
      tracks.freeze
      clips.freeze
    end

    def directory = memo(:directory) { Directory.new(self) }
    def track(id) = directory.track(id)
    def returns = memo(:returns) { tracks.select { |track| track.kind == "return" } }

    # @raise [NotFound]
    def clip(id)
      clips.fetch(id) { raise NotFound.of("unknown_clip", "/clip_id", "There is no clip #{id.inspect} in this song.") }
    end

    # @param address [Address]
    # @return [Parameter]
    # @raise [NotFound] naming what is missing
    def parameter(address)
      device = track(address.track_id).device(address.device_id)
      send_to = send_target(address)
      return device.type_rules.parameter(address.parameter_id) unless send_to

      Devices::SEND.with(id: address.parameter_id, name: "Send to #{send_to.name}")
    end

    # @return [Parameter, nil] nil where the address names nothing
    def parameter?(address)
      parameter(address)
    rescue NotFound
      nil
    end

    # What a parameter is called, also where it is missing: "Cutoff", or "cutoff of rope-bass/synth (missing)".
    # @return [String]
    def parameter_name(address)
      parameter?(address)&.name || "#{address.parameter_id} of #{address.track_id}/#{address.device_id} (missing)"
    end

    # The resting value of a parameter, normalised. No envelope and no hand that holds it changes it.
    # @param address [Address]
    def knob(address)
      track(address.track_id).device(address.device_id).values.fetch(address.parameter_id) { parameter(address).default }
    end

    # What makes a value of what a lane that trims gives: value * factor + offset.
    # @param lane [Envelope]
    # @return [Array(Float, Float), nil] factor and offset; nil for a lane that does not trim
    def trim_line(lane)
      return unless lane.trims?

      parameter = parameter(lane.target)
      Roles::Trim.new(parameter.default).line(parameter.scale, knob(lane.target))
    end

    # Whether a parameter is held by hand.
    # @param address [Address]
    def held?(address) = !held_value(address).nil?

    # @return [Float, nil] the value a hand holds a parameter at; nil where none does
    def held_value(address) = track(address.track_id).device(address.device_id).held[address.parameter_id]

    # Addresses of everything held by hand.
    # @return [Array<Address>]
    def held
      tracks.flat_map do |track|
        track.devices.flat_map { |device| device.held.keys.map { |id| Address.new(track_id: track.id, device_id: device.id, parameter_id: id) } }
      end
    end

    # A track and all it sounds into, up to the master.
    # @return [Array<Track>]
    def way_out(track) = track.output ? [track, *way_out(track(track.output))] : [track]

    # Every parameter of a track's chain with its address, in the order in which people see them.
    # @return [Array<Array(Address, Parameter)>]
    def parameters_of(track)
      track.devices.flat_map do |device|
        ids = device.type_rules.parameters.keys
        ids += returns.map { |to| Devices::SEND_PREFIX + to.id } if device.type == "channel" && track.sounds_itself?
        ids.map do |id|
          address = Address.new(track_id: track.id, device_id: device.id, parameter_id: id)
          [address, parameter(address)]
        end
      end
    end

    # Addresses of parameters that an envelope acts on, the ones switched off included; what points at nothing is left out.
    # @return [Array<Address>]
    def automated = memo(:automated) { directory.envelopes.values.map { |home| home.envelope.target }.uniq.select { |target| parameter?(target) } }

    # @return [Integer] the tick at which the last region ends, in whole bars, at least one
    def length_ticks
      memo(:length_ticks) do
        last = tracks.filter_map { |track| track.regions.last&.end_tick }.max || 0
        [(last + meter.bar_ticks - 1) / meter.bar_ticks, 1].max * meter.bar_ticks
      end
    end

    # The next song; what only its head changed, its directory still finds.
    def with(**changes)
      known = @memo[:directory]
      song = super
      song.known_directory(known) if known && !song.equal?(self) && !changes.key?(:tracks) && !changes.key?(:clips)
      song
    end

    # The next song with one track replaced.
    def with_track(track) = found_again(with(tracks: tracks.map { |other| other.id == track.id ? track : other })) { |found| found.with_track(track) }

    # The next song with one clip replaced or added.
    def with_clip(clip) = found_again(with(clips: clips.merge(clip.id => clip))) { |found| found.with_clip(clip) }

    protected

    # Takes over a directory that was made from another song's.
    def known_directory(directory) = @memo[:directory] = directory

    private

    # A directory at hand is brought up to date rather than made anew.
    def found_again(song)
      known = @memo[:directory]
      song.known_directory(yield(known)) if known
      song
    end

    def send_target(address)
      return unless address.device_id == "channel" && address.parameter_id.start_with?(Devices::SEND_PREFIX)
      return unless track(address.track_id).sounds_itself?

      id = address.parameter_id.delete_prefix(Devices::SEND_PREFIX)
      returns.find { |track| track.id == id } or
        raise NotFound.of("unknown_parameter", "", "There is no return #{id.inspect} to send to.")
    end
  end
end
