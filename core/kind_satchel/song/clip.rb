# frozen_string_literal: true

module KindSatchel
  # Material and the envelopes embedded in it. `kind` is notes, audio or carrier: a carrier holds envelopes only,
  # which may move any parameter of the song; the other kinds move the track they lie on. `audio` is nil but for an
  # audio clip.
  #
  # `devices` are effects of its own, heard only while its regions sound, on one track; `tails` says whether what they
  # ring on with after a region is heard (`ring`) or not (`stop`). `hue` is its colour, nil for its track's. `meter`
  # is a time signature of its own, by which its bars and positions are counted, nil for that of the song where it
  # lies.
  #
  # For one parameter a clip has at most one envelope of each role that is on.
  class Clip < Value.of(:id, :name, :kind, :length_ticks, :notes, :audio, :envelopes, :devices, :tails, :hue, :meter)
    include Chain

    KINDS = %w[notes audio carrier].freeze
    # The shortest clip: a 1/64 note.
    SHORTEST_TICKS = Timing::SHORTEST_TICKS

    TAILS = %w[ring stop].freeze

    def initialize(devices: [], tails: "ring", hue: nil, meter: nil, **fields) = super

    def check
      unless KINDS.include?(kind)
        fault!("unknown_kind", "/kind",
               "A clip is one of #{KINDS.join(', ')}, not #{kind.inspect}.")
      end
      whole!("/length_ticks", length_ticks, SHORTEST_TICKS)
      notes.freeze
      [envelopes, devices].each(&:freeze)
      check_material
      check_hue
      check_effects
      OneOfEach.check(envelopes, "/envelopes")
    end

    # @return [String] the owner id of its own devices, see {Address}
    def chain_id = Address.chain_id(id)
    def carrier? = kind == "carrier"

    # Whether its envelopes for a parameter act where it lies on a track: those of a carrier do anywhere, others on
    # their own track their own chain, and on settings of their own moves.
    # @param address [Address]
    # @param track [Track]
    def reaches?(address, track)
      carrier? || address.owner_id == track.id || address.owner_id == chain_id || own_setting?(address)
    end

    # Whether it is a setting of one of its own moves.
    def own_setting?(address) = address.setting? && envelopes.any? { |envelope| envelope.id == address.device_id }

    # The same clip under another id; what moves its chain moves that of the copy.
    def under(id:, **changes)
      copied = changes.fetch(:envelopes, envelopes).map do |envelope|
        own = envelope.target.owner_id == chain_id
        own ? envelope.with(target: envelope.target.with(owner_id: Address.chain_id(id))) : envelope
      end
      with(**changes, id:, envelopes: copied)
    end

    # @param role [String, nil] nil for the first of any role
    # @return [Envelope, nil]
    def envelope_for(target, role = nil)
      envelopes.find { |envelope| envelope.target == target && (role.nil? || envelope.role == role) }
    end

    private

    def check_hue
      return if hue.nil? || Track::HUES.include?(hue)

      fault!("unknown_hue", "/hue", "There is no hue #{hue.inspect}; there is #{Track::HUES.join(', ')}.")
    end

    def check_effects
      unless TAILS.include?(tails)
        fault!("unknown_tails", "/tails",
               "Tails #{TAILS.join(' or ')}, not #{tails.inspect}.")
      end
      if carrier? && devices.any?
        fault!("no_devices_here", "/devices",
               "A carrier clip makes no sound, so it has no devices.")
      end
      check_chain
      late = devices.find { |device| device.type_rules.role != "effect" } or return
      fault!("wrong_device", "/devices", "The chain of a clip holds effects; #{late.type_rules.name} is none.")
    end

    def check_material
      if notes.size > Notes::MOST
        fault!("too_many_notes", "/notes",
               "A clip holds at most #{Notes::MOST} notes; this would make #{notes.size}.")
      end
      return if (kind == "notes" || notes.empty?) && (kind == "audio") == !audio.nil?

      fault!("wrong_material", "/kind",
             "A clip of #{kind} holds nothing else: #{name} has #{notes.size} notes and #{audio ? 'a' : 'no'} sound.")
    end
  end
end
