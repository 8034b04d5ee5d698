import { ParamDial } from "../dial";
import { loopExtra } from "../loops";
import { biquad, bypassable, choice, constant, crossfade, type DeviceSound, gain } from "../parts";
import { sway } from "../sway";
import type { Studio } from "./index";

const LONGEST_SECONDS = 8;

/**
 * What comes again: after a time, or after a note length at the tempo the song has there; the time may sway. What comes
 * for the second time and later goes round a loop of its own, which is as much shorter as the browser makes it longer.
 */
export function delay({ context, beat }: Studio): DeviceSound {
  const line = new DelayNode(context, { maxDelayTime: LONGEST_SECONDS, delayTime: 0 });
  const tone = biquad(context, { type: "lowpass", Q: 0 });
  const again = gain(context, 0);
  const back = new DelayNode(context, { maxDelayTime: LONGEST_SECONDS, delayTime: 0 });
  line.connect(tone).connect(again).connect(back).connect(tone);
  const round = gain(context, 1);
  round.connect(line.delayTime);
  round.connect(back.delayTime);
  constant(context, -loopExtra()).connect(back.delayTime);
  const seconds = constant(context);
  const quarters = constant(context);
  const lasting = gain(context, 0);
  const way = choice(context, [seconds, lasting], round);
  quarters.connect(lasting);
  beat.connect(lasting.gain);
  const swing = sway(context, 0.5);
  swing.output.connect(round);
  const input = gain(context, 1);
  const output = gain(context, 1);
  const mix = crossfade(context, 0);
  const [dry, wet] = [gain(context, 1), gain(context, 1)];
  input.connect(line);
  input.connect(mix.dry).connect(dry).connect(output);
  tone.connect(mix.wet).connect(wet).connect(output);
  const whole = bypassable(context, input, output, true);
  return {
    input: whole.input,
    output: whole.output,
    begin: swing.begin,
    dials: {
      time: new ParamDial([seconds.offset], undefined, 0.05),
      "in-notes": way,
      note: new ParamDial([quarters.offset], undefined, 0.05),
      feedback: new ParamDial([again.gain]),
      tone: new ParamDial([tone.frequency]),
      "sway-rate": swing.rate,
      sway: swing.depth,
      dry: new ParamDial([dry.gain]),
      wet: new ParamDial([wet.gain]),
      mix: mix.dial,
      bypass: whole.bypass,
    },
  };
}

/** Lets through what the core's steps say, as deep and as softly as is said. */
export function stepGate({ context }: Studio): DeviceSound {
  const steps = constant(context, 1);
  const soft = biquad(context, { type: "lowpass", Q: -6.02 });
  const one = constant(context, 1);
  const depth = constant(context, 0);
  const gated = gain(context, 0);
  const open = gain(context, 1);
  const volume = gain(context, 0);
  depth.connect(gated.gain);
  depth.connect(gain(context, -1)).connect(open.gain);
  steps.connect(soft).connect(gated).connect(volume.gain);
  one.connect(open).connect(volume.gain);
  const whole = bypassable(context, volume, volume);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      steps: new ParamDial([steps.offset], undefined, 0.001),
      depth: new ParamDial([depth.offset]),
      soft: new ParamDial([soft.frequency], (seconds) => Math.min(0.35 / seconds, 10_000)),
      bypass: whole.bypass,
    },
  };
}
