import { afterMs, ManyDial, ParamDial, SwitchedDial } from "../dial";
import { between, biquad, bypassable, type DeviceSound, gain } from "../parts";
import { sway } from "../sway";

const KINDS: BiquadFilterType[] = ["lowpass", "bandpass", "notch", "highpass"];

/** All kinds side by side; the choice fades between them, without a click. Only what is heard is worked out. */
export function filter(context: BaseAudioContext): DeviceSound {
  const input = gain(context, 1);
  const sum = gain(context, 1);
  const branches = KINDS.map((type, kind) => {
    const node = biquad(context, { type });
    const level = gain(context, kind === 0 ? 1 : 0);
    input.connect(node).connect(level);
    return { node, kind, level };
  });
  const kinds = branches.map(({ level, kind }) => {
    const share = new ParamDial([level.gain], (choice) => Math.max(0, 1 - Math.abs(choice - kind)));
    return new SwitchedDial(share, (choice) => choice === kind, between(level, sum), kind === 0, afterMs(context));
  });
  const nodes = branches.map(({ node }) => node);
  const whole = bypassable(context, input, sum);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      kind: new ManyDial(kinds),
      cutoff: new ParamDial(nodes.map((node) => node.frequency)),
      resonance: new ParamDial(nodes.map((node) => node.Q)),
      bypass: whole.bypass,
    },
  };
}

/** Four bands in a row: a shelf, two bells, a shelf. */
export function equaliser(context: BaseAudioContext): DeviceSound {
  const low = biquad(context, { type: "lowshelf" });
  const first = biquad(context, { type: "peaking" });
  const second = biquad(context, { type: "peaking" });
  const high = biquad(context, { type: "highshelf" });
  low.connect(first).connect(second).connect(high);
  const whole = bypassable(context, low, high);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      low: new ParamDial([low.gain]),
      "low-frequency": new ParamDial([low.frequency]),
      "first-bell": new ParamDial([first.gain]),
      "first-frequency": new ParamDial([first.frequency]),
      "first-width": new ParamDial([first.Q]),
      "second-bell": new ParamDial([second.gain]),
      "second-frequency": new ParamDial([second.frequency]),
      "second-width": new ParamDial([second.Q]),
      high: new ParamDial([high.gain]),
      "high-frequency": new ParamDial([high.frequency]),
      bypass: whole.bypass,
    },
  };
}

/** Four all-pass filters that sway together, mixed with what went in. */
export function phaser(context: BaseAudioContext): DeviceSound {
  const swing = sway(context, 0.3, (share) => share * 2400);
  const stages = Array.from({ length: 4 }, () => biquad(context, { type: "allpass", Q: 0.7 }));
  for (const [i, stage] of stages.entries()) {
    swing.output.connect(stage.detune);
    if (i > 0) stages[i - 1].connect(stage);
  }
  const input = gain(context, 1);
  const mixed = gain(context, 1);
  const wet = gain(context, 0);
  input.connect(mixed);
  input.connect(stages[0]);
  stages[3].connect(wet).connect(mixed);
  const whole = bypassable(context, input, mixed);
  return {
    input: whole.input,
    output: whole.output,
    begin: swing.begin,
    dials: {
      centre: new ParamDial(stages.map((stage) => stage.frequency)),
      rate: swing.rate,
      depth: swing.depth,
      mix: new ParamDial([wet.gain]),
      bypass: whole.bypass,
    },
  };
}
