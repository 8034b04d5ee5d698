# frozen_string_literal: true

module KindSatchel
  module Edits
    # The one curve of every fade: out of what stands there down to the foot, bent so that it lies below the straight
    # line; a fade in is its mirror image in time. On the travel of a fader it stands 8, 18 and 33 dB below its start
    # at a quarter, half and three quarters (common practice, no source).
    module Fades
      CURVE = 0.15
      # Of a move that scales a gain, which counts in amplitude and not in travel: 8, 17 and 28 dB.
      GAIN = 0.45

      module_function

      # @param direction [String] "in" or "out"
      # @param curve [Float, nil] another one
      # @return [Shape]
      def shape(role, scale, direction, curve = nil)
        bend = curve || (role == "scale" && scale.gain? ? GAIN : CURVE)
        Shapes::Curved.new(curve: direction == "in" ? bend : -bend)
      end
    end
  end
end
