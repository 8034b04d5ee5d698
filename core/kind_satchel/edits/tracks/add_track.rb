# frozen_string_literal: true

module KindSatchel
  module Edits
    # Adds a track of any kind, before another one, or else under the last of its like. It sounds into the master, or
    # into the group the track before which it comes sounds into. Channels get a send to a new return.
    module AddTrack
      NAMES = { "notes" => "Notes", "audio" => "Audio", "carrier" => "Carriers", "group" => "Group",
                "return" => "Return" }.freeze
      # What a track of a kind starts with, unless said otherwise.
      DEVICES = { "notes" => [{ "type" => "mono-synth" }], "audio" => [{ "type" => "loop-player" }] }.freeze
      CHANNEL = Device.new(id: "channel", type: "channel", values: {}, held: {})
      # Material stands above what takes it in.
      ORDER = %w[notes audio carrier return group master].freeze

      def self.call(song, input)
        kind = input[:kind]
        place = place(song, kind, input[:before])
        track = Track.new(id: "track-#{song.next_id}", name: name(song, input), kind:, hue: input.fetch(:hue) do
          hue(song)
        end,
                          output: output(song, kind, place, input[:before]),
                          devices: kind == "carrier" ? [] : [CHANNEL], lanes: [], regions: [])
        track = with_chain(track, input.fetch(:devices) { DEVICES.fetch(kind, []) })
        [song.with(tracks: song.tracks.dup.insert(place, track), next_id: song.next_id + 1), "add #{track.name}"]
      end

      def self.name(song, input)
        Transfer::Clips.free_name(song.tracks.map(&:name), Inputs.name!(input.fetch(:name, NAMES.fetch(input[:kind]))))
      end

      def self.place(song, kind, before)
        return InvalidInput.under("/before") { song.tracks.index(song.track(before)) } if before

        rank = ORDER.index(kind)
        (song.tracks.rindex { |track| ORDER.index(track.kind) <= rank } || -1) + 1
      end

      # The hue that is used least.
      def self.hue(song)
        used = song.tracks.map(&:hue).tally
        Track::HUES.min_by.with_index { |hue, i| [used.fetch(hue, 0), i] }
      end

      def self.output(song, kind, place, before)
        below = before && song.tracks[place]
        below && %w[notes audio group].include?(kind) && below.output ? below.output : song.tracks.last.id
      end

      def self.with_chain(track, list)
        list.each_with_index.reduce(track) do |now, (entry, i)|
          rules = Chains.type!(now, entry["type"], "/devices/#{i}/type")
          values = Chains.values!(rules, entry.fetch("values", {}), "/devices/#{i}/values")
          device = Chains.fresh(now.devices.map(&:id), rules.id).with(values:, sound: entry["sound"])
          now.with(devices: SetChain.in_order([*now.devices, device]))
        end
      end
      private_class_method :name, :place, :hue, :output, :with_chain
    end
  end
end
