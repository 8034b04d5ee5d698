# frozen_string_literal: true

# The rules and the arithmetic of the job, on the standard library alone. In reading order; each part knows only those
# above it:
module KindSatchel
end

require_relative "kind_satchel/errors"
require_relative "kind_satchel/plain_text" # names as they read
require_relative "kind_satchel/value"
require_relative "kind_satchel/registry"
require_relative "kind_satchel/jet"        # what is known of a curve over a stretch: bounds of value, slope and bend
require_relative "kind_satchel/timing"     # ticks, meter, tempo: the only place where ticks, bars and seconds meet
require_relative "kind_satchel/parameter"  # what can be moved: scales, units and text, addresses
require_relative "kind_satchel/devices"    # the catalogue: every device, a file each
require_relative "kind_satchel/curve"      # points, shapes, splicing, thinning: plain mathematics
require_relative "kind_satchel/song"       # song, track, clip, region, envelope, roles, clocks: frozen values
require_relative "kind_satchel/records"    # song documents, parts, patches: plain records of all these, and back
require_relative "kind_satchel/heard"      # who acts, pieces, explanation, outlines, ramps, events
require_relative "kind_satchel/upgrade"    # songs of older versions brought to this one
require_relative "kind_satchel/checks"     # what a song may hold that nobody meant
require_relative "kind_satchel/transfer"   # what goes along when material goes elsewhere
require_relative "kind_satchel/conversion" # clip moves laid out on lanes, lanes packed into clips
require_relative "kind_satchel/follow"     # what is taken from sound: how fast it is, where it begins
require_relative "kind_satchel/perform"    # what hands do while the song plays, made into material
require_relative "kind_satchel/formats"    # MIDI files read
require_relative "kind_satchel/hand_over"  # what leaves for other programs, baked to what they can do
require_relative "kind_satchel/edits"      # every change to a song, a file each
