# frozen_string_literal: true

module KindSatchel
  module Heard
    # Why a parameter has its value at a tick: the steps in order, each with what it does and the value after it. What
    # sets the value but is overruled is listed before what overrules it. While a hand holds the parameter, what would
    # act is listed too, and waits.
    #
    # @example
    #   Explanation.new(song, Address.parse("rope-bass/synth/cutoff"), 4800).lines.last #=> "heard -> 320 Hz"
    class Explanation
      # `kind` is knob, held, macro, lane, clip, carrier, limits or heard; `value` is normalised, after the step.
      # `inputs` are the settings of the move that made it, see {Inputs}.
      Step = Struct.new(:kind, :name, :does, :value, :text, :envelope_id, :region_id, :overruled, :waits, :inputs,
                        keyword_init: true)

      # Above about so many cycles a second the ear no longer follows the swings of a level one by one (a fact of
      # hearing, from memory).
      FUSED_HERTZ = 30.0
      TOO_FAST = "too fast for its shape to be heard"

      # @param song [Song]
      # @param address [Address]
      # @param tick [Integer]
      def initialize(song, address, tick)
        @song = song
        @address = address
        @tick = tick
        @resolver = Resolver.new(song, address)
      end

      # @return [Array<Step>] from the knob to what is heard
      def steps = @steps ||= [knob_step, *acting_steps, *limit_step, heard_step]

      # @return [Float] normalised, as heard
      def heard = steps.last.value

      # @return [Array<String>] one line a step
      def lines
        head = "#{@song.owner_name(@address)}, #{parameter.name} at #{@song.meters.text(@tick)}"
        [head] + steps.map do |step|
          [step.kind, step.name,
           step.does].compact.join(" ") + Inputs.words(step.inputs) + (aside(step) || " -> #{step.text}")
        end
      end

      # @return [Hash] plain data, for the panel that tells the sum
      def to_record
        { "address" => @address.to_s, "name" => parameter.name, "owner" => @song.owner_name(@address), "tick" => @tick,
          "position" => @song.meters.text(@tick),
          "heard" => heard, "text" => parameter.text(heard), "steps" => steps.map { |step| record(step) } }
      end

      private

      def record(step)
        step.to_h.transform_keys(&:to_s).merge("inputs" => step.inputs.map do |input|
          input.to_h.transform_keys(&:to_s).merge("address" => input.address.to_s)
        end)
      end

      def aside(step)
        return " (overruled)" if step.overruled

        " (waits)" if step.waits
      end

      def parameter = @resolver.parameter
      def scale = parameter.scale

      def knob_step
        if @resolver.acting.held?
          return step("held", nil, "by hand at #{parameter.text(@resolver.knob)}",
                      @resolver.knob)
        end

        return macro_step if @resolver.driven

        step("knob", nil, "rests at #{parameter.text(@resolver.knob)}", @resolver.knob)
      end

      # A macro stands in the place of the knob.
      def macro_step
        address = @resolver.driven.macro
        macro, value = @song.parameter(address), @resolver.knob_at(@tick)
        place = Resolver.new(@song, address)
        input = Inputs::Input.new(macro.name, macro.text(place.at(@tick)), Inputs.by(place, @tick), address)
        step("macro", macro.name, "sets #{parameter.text(value)}", value, inputs: [input])
      end

      def acting_steps
        return waiting_steps if @resolver.acting.held?

        acting = @resolver.amounts.at(@tick)
        last_set = acting.rindex { |source, _| source.envelope.role == "set" } || 0
        value = @resolver.knob_at(@tick)
        acting.each_with_index.map do |(source, amount), i|
          value = @resolver.applied(source, value, amount, @tick)
          acting_step(source, amount, value, overruled: i < last_set)
        end
      end

      # What acts again once the hand lets go.
      def waiting_steps
        Amounts.new(Acting.new(@song, @address, waiting: true)).at(@tick).map do |source, amount|
          acting_step(source, amount, @resolver.knob, waits: true)
        end
      end

      def acting_step(source, amount, value, **more)
        rules = source.envelope.trims? ? Roles::Trim.new(parameter.default) : source.envelope.role_rules
        inputs = Inputs.of(@song, source, @tick)
        wave = if source.envelope.lfo?
                 "#{Inputs.wave(source.envelope,
                                inputs)}#{", #{TOO_FAST}" if too_fast?(source)}: "
               else
                 ""
               end
        step(source.kind, source.clip&.name, "#{wave}#{rules.verb} #{rules.amount_text(scale, amount)}", value,
             inputs:, **places(source), **more)
      end

      # Whether a wave goes by so quickly that it is heard as roughness and no longer as a move.
      def too_fast?(source)
        envelope = source.envelope
        rate = Setting.new(Evaluation.of(@song, source.region), envelope, "rate").at(@tick)
        return rate > FUSED_HERTZ if envelope.source.free?

        pace = (source.region && envelope.clock_rules.pace(source.region, source.clip, envelope)) || 1
        rate * pace * @song.tempo.bpm_at(@tick) / 60 > FUSED_HERTZ
      end

      def places(source) = { envelope_id: source.envelope.id, region_id: source.region&.id }

      # Only there when the limits change something.
      def limit_step
        value = last_value
        return [] if (scale.heard(value) - value).abs < 1e-12

        does = scale.steps ? "takes the nearest step" : "stays within #{parameter.text(0.0)} to #{parameter.text(1.0)}"
        [step("limits", nil, does, scale.heard(value))]
      end

      def heard_step = step("heard", nil, nil, scale.heard(last_value))

      def last_value = @last_value ||= @resolver.raw(@tick)

      def step(kind, name, does, value, **more)
        Step.new(kind:, name:, does:, value:, text: parameter.text(value), overruled: false, waits: false, inputs: [],
                 **more)
      end
    end
  end
end
