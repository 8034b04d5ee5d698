import { ParamDial } from "../dial";
import { bypassable, constant, type DeviceSound, gain } from "../parts";

const KINDS: BiquadFilterType[] = ["lowpass", "bandpass", "notch", "highpass"];

/** All kinds side by side; the choice fades between them, so that switching does not click. */
export function filter(context: BaseAudioContext): DeviceSound {
  const input = gain(context, 1);
  const sum = gain(context, 1);
  const kind = constant(context);
  const last = KINDS.length - 1;
  const nodes = KINDS.map((type, place) => {
    const node = new BiquadFilterNode(context, { type });
    const level = gain(context, 0);
    const curve = Float32Array.from({ length: 6 * last + 1 }, (_, i) =>
      Math.max(0, 1 - Math.abs(i / 3 - last - place)),
    );
    kind.connect(new WaveShaperNode(context, { curve })).connect(level.gain);
    input.connect(node).connect(level).connect(sum);
    return node;
  });
  const whole = bypassable(context, input, sum);
  return {
    input: whole.input,
    output: whole.output,
    dials: {
      kind: new ParamDial([kind.offset], (choice) => choice / last),
      cutoff: new ParamDial(nodes.map((node) => node.frequency)),
      resonance: new ParamDial(nodes.map((node) => node.Q)),
      bypass: whole.dial,
    },
  };
}

/** Four bands in a row: a shelf, two bells, a shelf. */
export function equaliser(context: BaseAudioContext): DeviceSound {
  const low = new BiquadFilterNode(context, { type: "lowshelf" });
  const first = new BiquadFilterNode(context, { type: "peaking" });
  const second = new BiquadFilterNode(context, { type: "peaking" });
  const high = new BiquadFilterNode(context, { type: "highshelf" });
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
      bypass: whole.dial,
    },
  };
}

/** Four all-pass filters that sway together, mixed with what went in. */
export function phaser(context: BaseAudioContext): DeviceSound {
  const sway = new OscillatorNode(context, { frequency: 0.3 });
  const depth = gain(context, 0);
  sway.connect(depth);
  sway.start();
  const stages = Array.from({ length: 4 }, () => new BiquadFilterNode(context, { type: "allpass", Q: 0.7 }));
  for (const [i, stage] of stages.entries()) {
    depth.connect(stage.detune);
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
    dials: {
      centre: new ParamDial(stages.map((stage) => stage.frequency)),
      rate: new ParamDial([sway.frequency]),
      depth: new ParamDial([depth.gain], (share) => share * 2400),
      mix: new ParamDial([wet.gain]),
      bypass: whole.dial,
    },
  };
}
