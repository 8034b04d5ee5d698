# frozen_string_literal: true

module KindSatchel
  # Material and the envelopes embedded in it. `kind` is notes, audio or carrier: a carrier holds envelopes only, which may move
  # any parameter of the song; the other kinds move the track they lie on. `audio` is nil but for an audio clip.
  #
  # For one parameter a clip has at most one envelope of each role that is on.
  class Clip < Value.of(:id, :name, :kind, :length_ticks, :notes, :audio, :envelopes)
    KINDS = %w[notes audio carrier].freeze
    # The shortest clip: a 1/64 note.
    SHORTEST_TICKS = Timing::SHORTEST_TICKS

    def check
      fault!("unknown_kind", "/kind", "A clip is one of #{KINDS.join(', ')}, not #{kind.inspect}.") unless KINDS.include?(kind)
      whole!("/length_ticks", length_ticks, SHORTEST_TICKS)
      notes.freeze
      envelopes.freeze
      check_material
      OneOfEach.check(envelopes, "/envelopes")
    end

    def carrier? = kind == "carrier"

    # @param role [String, nil] nil for the first of any role
    # @return [Envelope, nil]
    def envelope_for(target, role = nil)
      envelopes.find { |envelope| envelope.target == target && (role.nil? || envelope.role == role) }
    end

    private

    def check_material
      return if (kind == "notes" || notes.empty?) && (kind == "audio") == !audio.nil?

      fault!("wrong_material", "/kind", "A clip of #{kind} holds nothing else: #{name} has #{notes.size} notes and #{audio ? 'a' : 'no'} sound.")
    end
  end
end
