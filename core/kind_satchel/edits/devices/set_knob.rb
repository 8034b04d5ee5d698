# frozen_string_literal: true

module KindSatchel
  module Edits
    # Turns a knob, fader or switch to a resting value. One that something sets is held by hand instead: what moves it
    # waits until it is handed back (see {HandBack}), and its resting value stays as it was. `way` says otherwise:
    # "rest" turns the resting value whatever moves it, "hold" holds it against whatever moves it.
    #
    # `value` is normalised, or a text in the parameter's unit; a bare number is in the unit of `shown`, the text that
    # stood there. 50 % is half of the travel where the unit is not percent. With `from` it is a value of that
    # parameter: the same by value where both have one unit, else the same share of the travel.
    module SetKnob
      def self.call(song, input)
        address = InvalidInput.under("/address") { Address.parse(input[:address]).tap { |a| song.parameter(a) } }
        parameter = song.parameter(address)
        value = parameter.scale.heard(wanted(song, parameter.scale, input))
        named = "#{parameter.name} of #{song.owner_name(address)}"
        words = "turn #{named} to #{parameter.text(value)}"
        return [song.owned(address).turned(value), words] unless holds?(song, address, input[:way])

        held = Notice.new("held", [input[:address]], "held by hand until it is handed back")
        notices = song.held?(address) ? [] : [held]
        [song.owned(address).held(value), words, notices]
      end

      def self.wanted(song, scale, input)
        given = input[:value]
        return input.key?(:from) ? carried(song, scale, input) : given if given.is_a?(Numeric)

        InvalidInput.under("/value") { Roles::Set.parse(scale, Units.as_shown(given, input.fetch(:shown, ""))) }
      end

      def self.carried(song, scale, input)
        source = InvalidInput.under("/from") { song.parameter(Address.parse(input[:from])).scale }
        return input[:value] unless source.unit.word == scale.unit.word

        value = scale.normalised(source.natural(input[:value]))
        return value.clamp(0.0, 1.0) if value.between?(-1e-9, 1 + 1e-9)

        ends = [0.0, 1.0].map { |one| scale.text(one) }.join(" to ")
        raise InvalidInput.of("out_of_range", "/value", "#{source.text(input[:value])} lies outside #{ends}.")
      end

      # @raise [InvalidInput] where it is to be held and nothing moves it
      def self.holds?(song, address, way)
        return song.held?(address) || overruled?(song, address) unless way
        return false if way == "rest"
        return true if song.held?(address) || moved?(song, address)

        raise InvalidInput.of("nothing_moves", "/way", "Nothing moves #{song.full_name(address)}; it is only turned.")
      end

      def self.moved?(song, address)
        directory = song.directory
        !directory.driver(address).nil? || song.lanes_of(address).any?(&:acts?) ||
          directory.movers(address).any? { |_, envelope| envelope.acts? }
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
      private_class_method :wanted, :carried, :holds?, :moved?, :overruled?
    end
  end
end
