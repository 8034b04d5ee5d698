# frozen_string_literal: true

module KindSatchel
  module Devices
    # Knobs that drive other parameters (see {Macro}); it makes no sound of its own.
    MACRO_STRIP = Type.define("macro-strip", "Macros", "macros") do |p|
      8.times { |i| p.share "macro-#{i + 1}", "Macro #{i + 1}", "0 %" }
    end
  end
end
