# frozen_string_literal: true

module KindSatchel
  module Owners
    # A move, with its settings: what is moved there acts wherever the move does.
    class OfMove
      def initialize(song, address)
        @song = song
        @address = address
      end

      # "Cutoff in Mooring", "Cutoff on Rope Bass".
      def name
        home = @song.directory.envelopes[@address.device_id] or return @address.device_id
        "#{@song.parameter_name(home.envelope.target)} #{home.clip ? "in #{home.clip.name}" : "on #{home.track.name}"}"
      end

      def parameter = Settings.parameter(envelope, setting) { @song.parameter?(envelope.target)&.scale }

      # @return [String, nil] what the setting is called; nil where there is none
      def title
        home = @song.directory.envelopes[@address.device_id]
        Settings::TITLES[setting] if home && Settings.names(home.envelope).include?(setting)
      end

      def knob = Settings.knob(envelope, setting)
      def held_value = envelope.held[setting]
      def turned(value) = changed(Settings.turned(envelope, setting, value))

      def held(value)
        parameter
        changed(envelope.with(held: value ? envelope.held.merge(setting => value) : envelope.held.except(setting)))
      end

      # Those on which its clip sounds; of a lane's there are none.
      def tracks = home.clip ? @song.directory.regions_of_clip(home.clip.id).map(&:track).uniq(&:id) : []

      # On whatever track.
      def lanes = @song.directory.setting_lanes(@address)

      # Where a new lane for it lies: by the move itself, or on the track where its clip lies first.
      # @return [Track]
      def lane_track
        return home.track if home.track

        placed = @song.directory.regions_of_clip(home.clip.id).first
        placed&.track || @song.directory.tracks[envelope.target.owner_id] || @song.tracks.last
      end

      private

      def setting = @address.parameter_id
      def envelope = home.envelope

      def home
        @song.directory.envelopes.fetch(@address.device_id) do
          raise NotFound.of("unknown_move", "", "There is no move #{@address.device_id.inspect} in this song.")
        end
      end

      def changed(envelope)
        home = self.home
        return @song.with_track(home.track.with(lanes: swapped(home.track.lanes, envelope))) if home.track

        @song.with_clip(home.clip.with(envelopes: swapped(home.clip.envelopes, envelope)))
      end

      def swapped(list, envelope) = list.map { |one| one.id == envelope.id ? envelope : one }
    end
  end
end
