# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns a knob, fader or switch to a resting value. One that something sets is thereby held by hand: what moves it waits
    # until it is handed back (see {HandBack}).
    module SetKnob
      def self.call(song, input)
        address = Moves.at("/address") { Address.parse(input[:address]).tap { |a| song.parameter(a) } }
        parameter = song.parameter(address)
        value = parameter.scale.heard(input[:value])
        taken = overruled?(song, address) && !song.held?(address)
        next_song = Moves.with_knob(song, address, value)
        next_song = Moves.with_device(next_song, address) { |device| device.with(held: (device.held + [address.parameter_id]).sort) } if taken
        [next_song, "turn #{parameter.name} of #{song.track(address.track_id).name} to #{parameter.text(input[:value])}",
         taken ? ["held by hand until it is handed back"] : []]
      end

      # Whether turning the knob by itself would not be heard wherever an envelope sets it.
      def self.overruled?(song, address)
        lanes = song.track(address.track_id).lanes.select { |lane| lane.target == address && !lane.trims? }
        clips = song.directory.carriers(address).reject { |clip, _| song.directory.regions_of_clip(clip.id).empty? }
        (lanes + clips.map(&:last)).any? { |envelope| envelope.acts? && envelope.role == "set" }
      end
      private_class_method :overruled?
    end
  end
end
