# frozen_string_literal: true

# The rules and the arithmetic of the job, on the standard library alone. In reading order:
module KindSatchel
end

require_relative "kind_satchel/errors"
require_relative "kind_satchel/value"
require_relative "kind_satchel/registry"
require_relative "kind_satchel/time"      # ticks, meter, tempo: the only place where ticks, bars and seconds meet
require_relative "kind_satchel/parameter" # what can be moved: scales, units and text, addresses
require_relative "kind_satchel/devices"   # the catalogue: every device, a file each
require_relative "kind_satchel/envelope"  # points, shapes, roles, clocks
require_relative "kind_satchel/song"      # song, track, clip, region: frozen values, and their plain records
require_relative "kind_satchel/checks"    # what a song may hold that nobody meant
require_relative "kind_satchel/heard"     # layers, pieces, explanation, outlines, ramps, events
require_relative "kind_satchel/travel"    # what goes along when material goes elsewhere
require_relative "kind_satchel/conversion" # clip moves laid out on lanes, lanes packed into clips
require_relative "kind_satchel/edits" # every change to a song, a file each
