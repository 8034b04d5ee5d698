"""Samples curves at 1 kHz with numpy, as the measure the ramps are held against.

Reads JSON: {"seconds": length, "ticks_per_second": pace, "curves": [{"scale": [kind, low, high], "segments":
[[start, finish, a, b, bend], ...]}, ...]}; bend is null for held, 0 for straight, k for e^(ku). Prints the seconds of processor time it took.
"""
import json
import sys
import time

import numpy

data = json.load(sys.stdin)
curves = [(curve["scale"], numpy.array([[s[0], s[1], s[2], s[3], numpy.nan if s[4] is None else s[4]] for s in curve["segments"]])) for curve in data["curves"]]
began = time.process_time()
ticks = numpy.arange(0, data["seconds"], 0.001) * data["ticks_per_second"]
total = 0.0
for (kind, low, high), segments in curves:
    places = numpy.searchsorted(ticks, segments[:, 0])
    counts = numpy.diff(numpy.append(places, ticks.size))
    start, finish, a, b, bend = (numpy.repeat(column, counts) for column in segments.T)
    share = (ticks[places[0]:] - start) / (finish - start)
    curved = numpy.nonzero(bend)[0]
    curved = curved[~numpy.isnan(bend[curved])]
    share[numpy.isnan(bend)] = 0.0
    share[curved] = numpy.expm1(bend[curved] * share[curved]) / numpy.expm1(bend[curved])
    value = a + (b - a) * share
    if kind == "log":
        engine = low * (high / low) ** value
    elif kind == "fader":
        engine = high * value * value
    else:
        engine = low + value * (high - low)
    total += engine[-1]
print(json.dumps({"seconds": time.process_time() - began, "samples": int(ticks.size) * len(curves), "sum": total}))
