# frozen_string_literal: true

module KindSatchel
  module Heard
    # The settings of a move that made a step of an explanation: those that are not as they begin, and those that are
    # moved. Each leads to an explanation of its own by its address.
    module Inputs
      # `by` says what moves it there: lane, clip, carrier or hand; nil where it rests.
      Input = Struct.new(:name, :text, :by, :address)

      module_function

      # @param source [Source]
      # @param tick [Integer]
      # @return [Array<Input>]
      def of(song, source, tick)
        evaluation = Evaluation.of(song, source.region)
        Settings.names(source.envelope).filter_map { |name| input(evaluation, source.envelope, name, tick) }
      end

      # @return [String] the wave and what belongs to it; the rate where it is not by_name as an input
      def wave(envelope, inputs)
        by_name = inputs.to_h { |input| [input.name, input] }
        envelope.source.text(wave: by_name["wave"]&.text, rate: by_name.key?("rate") ? nil : envelope.source.rate_text)
      end

      # @return [String] " - rate 1/8 (lane), depth 40 %"; nothing without inputs
      def words(inputs)
        return "" if inputs.empty?

        " - #{inputs.map { |input| "#{input.name} #{input.text}#{" (#{input.by})" if input.by}" }.join(', ')}"
      end

      def input(evaluation, envelope, name, tick)
        song = evaluation.song
        address = Address.setting(envelope.id, name)
        moved = song.directory.moved_settings.fetch(envelope.id, []).include?(name) || envelope.held.key?(name)
        return if !moved && plain?(envelope, name)

        parameter = song.parameter(address)
        return Input.new(name, parameter.text(song.knob(address)), nil, address) unless moved

        resolver = evaluation.signal(address)
        Input.new(name, parameter.text(resolver.at(tick)), by(resolver, tick), address)
      end

      def plain?(envelope, name)
        case name
        when "depth" then envelope.depth == 1
        when "rate", "wave" then true
        else envelope.full_limits?
        end
      end

      # What moves a parameter at a tick.
      # @return [String, nil]
      def by(resolver, tick)
        return "hand" if resolver.acting.held?

        resolver.amounts.at(tick).last&.first&.kind || ("macro" if resolver.driven)
      end
      private_class_method :input, :plain?
    end
  end
end
