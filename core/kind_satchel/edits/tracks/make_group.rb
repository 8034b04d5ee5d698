# frozen_string_literal: true

module KindSatchel
  module Edits
    # Makes a group right under the last of some tracks and lets them sound into it. It has a filter and a channel to
    # be moved.
    module MakeGroup
      DEVICES = { "filter" => "filter", "channel" => "channel" }.freeze

      def self.call(song, input)
        members = SetOutput.members!(song, input[:track_ids])
        name = Transfer::Clips.free_name(song.tracks.map(&:name), input.fetch(:name, "Group"))
        group = group(song, name, members)
        place = song.tracks.rindex { |track| members.include?(track) } + 1
        tracks = song.tracks.dup.insert(place, group).map do |track|
          members.include?(track) ? track.with(output: group.id) : track
        end
        [song.with(tracks:, next_id: song.next_id + 1), "put #{SetOutput.words(members)} in a group"]
      end

      # It sounds into what all of them did, else the master.
      def self.group(song, name, members)
        outputs = members.map(&:output).uniq
        devices = DEVICES.map { |id, type| Device.new(id:, type:, values: {}, held: {}) }
        Track.new(id: "track-#{song.next_id}", name:, kind: "group", hue: members.first.hue,
                  output: outputs.size == 1 ? outputs.first : song.tracks.last.id,
                  devices:, lanes: [], regions: [])
      end
      private_class_method :group
    end
  end
end
