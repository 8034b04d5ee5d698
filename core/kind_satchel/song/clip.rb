# frozen_string_literal: true

module KindSatchel
  # Material and the envelopes embedded in it. `audio` is nil unless it is an audio clip; a clip with neither
  # notes nor audio is a carrier clip.
  class Clip < Value.of(:id, :name, :length_ticks, :notes, :audio, :envelopes)
    def check
      whole!("/length_ticks", length_ticks, 1)
      notes.freeze
      envelopes.freeze
    end

    def kind = audio ? "audio" : (notes.empty? ? "carrier" : "notes")
    def envelope_for(target) = envelopes.find { |envelope| envelope.target == target }
  end
end
