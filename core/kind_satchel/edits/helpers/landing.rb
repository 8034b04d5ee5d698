# frozen_string_literal: true

module KindSatchel
  module Edits
    # Where something comes to that makes an envelope if there is none: an envelope (`envelope_id`), or a parameter
    # (`address`) in a clip (`clip_id`) or on its lane, in a `role`.
    class Landing
      attr_reader :song, :home

      # @param wished [String] the role where none is asked for and no envelope is there yet; where the parameter
      #   takes it
      # @raise [InvalidInput]
      def initialize(song, input, wished)
        @song = song
        input[:envelope_id] ? found(input[:envelope_id]) : look(input, wished)
      end

      # @return [Envelope]
      def envelope = @home.envelope

      # @return [Clip, nil]
      def clip = @home.clip

      # Whether it was made for this.
      def fresh? = !@fresh.nil?

      # @return [String] "in Mooring", "of Rope Bass"
      def words = clip ? "in #{clip.name}" : "of #{@song.owner_name(envelope.target)}"

      private

      def look(input, wished)
        raise InvalidInput.of("bad_request", "/address", "Say on which envelope or parameter.") unless input[:address]

        address = Inputs.target(@song, input[:address])
        there = if input[:clip_id]
                  @song.clip(input[:clip_id]).envelopes.select { |one| one.target == address }
                else
                  @song.lanes_of(address)
                end
        role = role(address, wished, there, input)
        known = there.find { |one| one.role == role }
        known ? found(known.id) : make(input, role)
      end

      def found(id) = @home = @song.directory.envelope(id)

      def make(input, role)
        @fresh = "envelope-#{@song.next_id}"
        inputs = { address: input[:address], role:, clip_id: input[:clip_id] }.compact
        @song, = (input[:clip_id] ? EmbedEnvelope : AddLane).call(@song, inputs)
        found(@fresh)
      end

      # The one asked for; that of the only envelope there is; the wished one, where the parameter takes it.
      def role(address, wished, there, input)
        return Inputs.role(@song, address, input) if input[:role]
        return there[0].role if there.size == 1

        @song.parameter(address).role_fits!(wished, "/role")
        wished
      rescue InvalidInput
        raise if input[:role]

        "set"
      end
    end
  end
end
