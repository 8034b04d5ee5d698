# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns a knob, fader or switch to a resting value. One that something sets is held by hand instead: what moves it
    # waits until it is handed back (see {HandBack}), and its resting value stays as it was.
    module SetKnob
      def self.call(song, input)
        address = InvalidInput.under("/address") { Address.parse(input[:address]).tap { |a| song.parameter(a) } }
        parameter = song.parameter(address)
        value = parameter.scale.heard(input[:value])
        words = "turn #{parameter.name} of #{song.owner_name(address)} to #{parameter.text(input[:value])}"
        return [song.owned(address).turned(value), words] unless song.held?(address) || overruled?(song, address)

        held = Notice.new("held", [input[:address]], "held by hand until it is handed back")
        notices = song.held?(address) ? [] : [held]
        [song.owned(address).held(value), words, notices]
      end

      # Whether turning the knob by itself would not be heard: wherever an envelope sets it, or where a macro drives it.
      def self.overruled?(song, address)
        return true if song.directory.driver(address)
        return true if song.lanes_of(address).any? { |lane| lane.role == "set" && lane.acts? && !lane.trims? }

        song.directory.movers(address).any? do |clip, envelope|
          envelope.acts? && envelope.role == "set" && song.directory.regions_of_clip(clip.id).any? do |placed|
            clip.reaches?(address, placed.track)
          end
        end
      end
      private_class_method :overruled?
    end
  end
end
