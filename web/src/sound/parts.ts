import { ParamDial } from "./dial";

/** A gain with a value. */
export function gain(context: BaseAudioContext, value: number): GainNode {
  return new GainNode(context, { gain: value });
}

/** A running constant, to turn several parameters with one dial. */
export function constant(context: BaseAudioContext, value = 0): ConstantSourceNode {
  const node = new ConstantSourceNode(context, { offset: value });
  node.start();
  return node;
}

/** What tunes every voice of an instrument, in cents: a tuning of its own, and the bend. */
export function tuning(context: BaseAudioContext): { tune: ConstantSourceNode; detune: GainNode; bend: ParamDial } {
  const tune = constant(context);
  const bent = constant(context);
  const detune = gain(context, 1);
  tune.connect(detune);
  bent.connect(detune);
  return { tune, detune, bend: new ParamDial([bent.offset], (semitones) => semitones * 100) };
}

/** Two ways through, mixed by one share: 0 is all `dry`, 1 all `wet`. */
export interface Crossfade {
  dry: GainNode;
  wet: GainNode;
  dial: ParamDial;
}

export function crossfade(context: BaseAudioContext, share: number): Crossfade {
  const dry = gain(context, 1);
  const wet = gain(context, 0);
  const source = constant(context, share);
  source.connect(wet.gain);
  source.connect(gain(context, -1)).connect(dry.gain);
  return { dry, wet, dial: new ParamDial([source.offset]) };
}

/** Amplitude by decibels above 0, up to `most`, as a control signal for a gain. */
export function decibelControl(context: BaseAudioContext, most: number, target: AudioParam): ParamDial {
  const source = constant(context);
  const curve = Float32Array.from({ length: 2049 }, (_, i) => 10 ** (((i / 1024 - 1) * most) / 20));
  source.connect(new WaveShaperNode(context, { curve })).connect(target);
  return new ParamDial([source.offset], (decibels) => decibels / most);
}

/** What every device of a chain offers: a way in, a way out, its dials by parameter, and notes or audio to play. */
export interface DeviceSound {
  input?: AudioNode;
  output: AudioNode;
  dials: Record<string, import("./dial").Dial>;
  play?(event: Sounding): Voice | null;
}

/** An event at a moment of context time; `late` seconds of it have passed already. */
export interface Sounding {
  at: number;
  until: number;
  late: number;
  songSeconds: number;
  pitch: number;
  velocity: number;
  buffer?: AudioBuffer;
  into: number;
  rate: number;
}

/** Something that sounds and can be broken off softly. */
export interface Voice {
  stop(at: number): void;
}

export const hertz = (pitch: number): number => 440 * 2 ** ((pitch - 69) / 12);

/** Wraps an effect so that it can be bypassed without a click. */
export function bypassable(
  context: BaseAudioContext,
  input: AudioNode,
  output: AudioNode,
): { input: GainNode; output: GainNode; dial: ParamDial } {
  const way = crossfade(context, 0);
  const start = gain(context, 1);
  const end = gain(context, 1);
  start.connect(input);
  output.connect(way.dry).connect(end);
  start.connect(way.wet).connect(end);
  return { input: start, output: end, dial: way.dial };
}

/** Mixes an effect with what went into it, and makes it bypassable. */
export function mixable(context: BaseAudioContext, input: AudioNode, output: AudioNode) {
  const mix = crossfade(context, 0);
  const start = gain(context, 1);
  const end = gain(context, 1);
  start.connect(input);
  start.connect(mix.dry).connect(end);
  output.connect(mix.wet).connect(end);
  const bypass = bypassable(context, start, end);
  return { input: bypass.input, output: bypass.output, mix: mix.dial, bypass: bypass.dial };
}
