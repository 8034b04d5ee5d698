# frozen_string_literal: true

module KindSatchel
  module Transfer
    # Brings tracks of another song into this one, with their devices, regions and clips, under ids of this song. What
    # an envelope moves on its own track goes along; what it moves elsewhere it keeps moving where this song has the
    # same, else it is switched off. Sends go to the returns of the same name.
    class Graft
      # The song so far, and the names of parameters that have no place in it.
      attr_reader :song, :lost

      # @param song [Song]
      # @param other [Song] where the tracks come from
      def initialize(song, other)
        @song = song
        @other = other
        @lost = []
        @clips = {}
        @ids = {}
      end

      # @param source [Track] of the other song
      # @param regions [Array<Region>] of it
      # @param start_tick [Integer] where the other song's first tick comes to lie
      # @param lanes [Boolean] whether its lanes come along
      # @return [Track] the one that was made, under the last of its like
      def track(source, regions:, start_tick: 0, lanes: true)
        bare = bare(source)
        @song = @song.with(tracks: @song.tracks.dup.insert(place, bare))
        placed = regions.map { |region| placed(region, source, bare, start_tick) }
        lanes = lanes ? source.lanes.map { |lane| later(moved(lane, source, bare), start_tick) } : []
        made = bare.with(regions: placed, lanes:)
        @song = @song.with_track(made)
        settings(source, made)
      end

      private

      # What moves settings of moves moves those of the ones that came along; what moves others is switched off.
      def settings(source, track)
        @clips.each_value do |id|
          @song = @song.with_clip(@song.clip(id).with(envelopes: turned(@song.clip(id).envelopes)))
        end
        devices = Copies.redriven(track.devices) { |target| driven(target, source, track) }
        @song = @song.with_track(track = track.with(lanes: turned(track.lanes), devices:))
        track
      end

      # What its macros drive on its own track, and of moves that came along.
      def driven(target, source, track)
        return own(target, track) if target.owner_id == source.id

        target.with(device_id: @ids[target.device_id]) if target.setting? && @ids.key?(target.device_id)
      end

      def turned(envelopes)
        Copies.retargeted(envelopes, @ids).map do |envelope|
          next envelope unless envelope.target.setting? && envelope.on && !@ids.value?(envelope.target.device_id)

          @lost |= [@other.parameter_name(envelope.target)]
          envelope.with(on: false)
        end
      end

      def make_id(word)
        @song = @song.with(next_id: @song.next_id + 1)
        "#{word}-#{@song.next_id - 1}"
      end

      # The track without what lies on it.
      def bare(source)
        devices = source.devices.map do |device|
          device.with(values: renamed(device, device.values), held: renamed(device, device.held))
        end
        name = Clips.free_name(@song.tracks.map(&:name), source.name)
        source.with(id: make_id("track"), name:, output: @song.tracks.last.id, devices:, lanes: [], regions: [])
      end

      def placed(region, source, track, start_tick)
        id = clip(region.clip_id, source, track)
        region.onto(@other.clip(region.clip_id), @song.clip(id))
              .with(id: make_id("region"), start_tick: region.start_tick + start_tick)
      end

      def place = (@song.tracks.rindex(&:holds_regions?) || -1) + 1

      # A clip of the other song, brought here once for each track.
      def clip(id, source, track)
        @clips[[id, track.id]] ||= begin
          clip = @other.clip(id)
          envelopes = clip.envelopes.map { |envelope| moved(envelope, source, track) }
          name = Clips.free_name(@song.clips.each_value.map(&:name), clip.name)
          made = clip.with(envelopes:).under(id: make_id("clip"), name:)
          @song = @song.with_clip(made)
          made.id
        end
      end

      def moved(envelope, source, track)
        id = @ids[envelope.id] = make_id("envelope")
        target = envelope.target.owner_id == source.id ? own(envelope.target, track) : elsewhere(envelope.target)
        return envelope.with(id:, target:) if target

        @lost |= [@other.parameter_name(envelope.target)]
        envelope.with(id:, target: envelope.target.with(owner_id: track.id), on: false)
      end

      def own(address, track)
        device = track.devices.find { |one| one.id == address.device_id } or return address.with(owner_id: track.id)
        id = parameter_id(device, address.parameter_id) or return
        address.with(owner_id: track.id, parameter_id: id)
      end

      # The same parameter of this song; a clip's own effects go with the clip.
      def elsewhere(address)
        return address if address.clip_id || address.setting?

        here, there = @song.parameter?(address), @other.parameter?(address)
        address if here && there && here.scale == there.scale
      end

      # Later in the song; before it begins, its first value holds as it did.
      def later(lane, ticks) = lane.with(points: lane.points.map { |point| point.with(tick: point.tick + ticks) })

      def renamed(device, values)
        values.filter_map { |id, value| parameter_id(device, id)&.then { |name| [name, value] } }.to_h
      end

      # What a parameter is called here: sends are called by their return; nil where that is not here.
      def parameter_id(device, id)
        _, return_id = Devices.send_parts(device, id)
        return id unless return_id

        name = @other.directory.tracks[return_id]&.name
        found = @song.tracks.find { |track| track.kind == "return" && track.name == name }
        found && (id.delete_suffix(return_id) + found.id)
      end
    end
  end
end
