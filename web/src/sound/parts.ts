import type { TrackPart } from "../api/types";
import { afterMs, type Dial, ManyDial, ParamDial, SwitchedDial } from "./dial";

/** A gain with a value. */
export function gain(context: BaseAudioContext, value: number): GainNode {
  return new GainNode(context, { gain: value });
}

/** A filter whose settings are taken up once a block, 2.7 ms: for every sample they would cost more than the filter. */
export function biquad(context: BaseAudioContext, options: BiquadFilterOptions): BiquadFilterNode {
  const node = new BiquadFilterNode(context, options);
  for (const param of [node.frequency, node.detune, node.Q, node.gain]) param.automationRate = "k-rate";
  return node;
}

/** An oscillator whose pitch is taken up once a block, like the settings of a filter. */
export function oscillator(context: BaseAudioContext, options: OscillatorOptions): OscillatorNode {
  const node = new OscillatorNode(context, options);
  node.frequency.automationRate = node.detune.automationRate = "k-rate";
  return node;
}

/** A running constant, to turn several parameters with one dial. */
export function constant(context: BaseAudioContext, value = 0): ConstantSourceNode {
  const node = new ConstantSourceNode(context, { offset: value });
  node.start();
  return node;
}

/** What tunes every voice of an instrument, in cents, and the dials that do. */
export interface Tuning {
  /** The one node that leads to the pitch of every voice: a voice asks each that does several times a block. */
  detune: GainNode;
  bend: Dial;
  pitch: Dial;
  fine: Dial;
}

/** A tuning of its own, coarse and fine, and the bend; what is on nothing hangs on nothing. */
export function tuning(context: BaseAudioContext): Tuning {
  const detune = gain(context, 1);
  const by = (cents: number): Dial => {
    const source = constant(context);
    const dial = new ParamDial([source.offset], (value) => value * cents);
    return new SwitchedDial(dial, (value) => value !== 0, between(source, detune), false, afterMs(context));
  };
  return { detune, bend: by(100), pitch: by(100), fine: by(1) };
}

/** Two ways through, mixed by one share: 0 is all `dry`, 1 all `wet`. */
export interface Crossfade {
  dry: GainNode;
  wet: GainNode;
  dial: Dial;
}

export function crossfade(context: BaseAudioContext, share: number): Crossfade {
  const dry = gain(context, 1 - share);
  const wet = gain(context, share);
  const dial = new ManyDial([new ParamDial([wet.gain]), new ParamDial([dry.gain], (value) => 1 - value)]);
  return { dry, wet, dial };
}

/**
 * One of two sources, or for a while some of both, by a share: 0 is all the first, 1 all the second. The one that is
 * not there is not worked out.
 */
export function choice(context: BaseAudioContext, [first, second]: [AudioNode, AudioNode], goal: AudioNode): Dial {
  const way = (source: AudioNode, share: (value: number) => number, on: boolean): Dial => {
    const level = gain(context, on ? 1 : 0);
    level.connect(goal);
    const dial = new ParamDial([level.gain], share);
    return new SwitchedDial(dial, (value) => share(value) > 0, between(source, level), on, afterMs(context));
  };
  return new ManyDial([way(first, (value) => 1 - value, true), way(second, (value) => value, false)]);
}

/** Amplitude by decibels above 0, up to `most`, as a control signal for a gain. */
export function decibelControl(context: BaseAudioContext, most: number, target: AudioParam): ParamDial {
  const source = constant(context);
  const curve = Float32Array.from({ length: 2049 }, (_, i) => 10 ** (((i / 1024 - 1) * most) / 20));
  source.connect(new WaveShaperNode(context, { curve })).connect(target);
  return new ParamDial([source.offset], (decibels) => decibels / most);
}

/** Hangs one node into another, or takes it out again. */
export const between =
  (from: AudioNode, to: AudioNode) =>
  (on: boolean): void => {
    if (on) from.connect(to);
    else from.disconnect(to);
  };

/** What every device of a chain offers: a way in, a way out, its dials by parameter, and notes or audio to play. */
export interface DeviceSound {
  input?: AudioNode;
  output: AudioNode;
  dials: Record<string, Dial>;
  play?(event: Sounding): Voice | null;
  /** Parts of a kit that can be sent by themselves, before the chain. */
  taps?: Map<string, AudioNode>;
  /** What makes a channel louder and softer; other gains can be turned along. */
  fader?: { volume: ParamDial; mute: ParamDial };
  /** By how many seconds what comes out is later. */
  latency?: number;
  /** Once what it is made of has come; until then it lets everything through, or nothing. */
  ready?: Promise<void>;
  /** A lap begins at a second of the song, at a moment of the output: what runs by itself begins again there. */
  begin?(songSeconds: number, at: number): void;
  /** Where time does not go by itself: is told what it is to be told at a moment. */
  speak?(at: number): Promise<void>;
  /** Takes over what is no dial: the sound of a sampler. */
  hold?(device: TrackPart["devices"][number]): void;
  /** Where voices that were led through the effects of their clip come back. */
  entry?: AudioNode;
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
  /** While the tempo moves: seconds of the song and speeds, ...; `lead` is context time minus song time. */
  rates?: number[];
  lead: number;
  /** Whether it goes down from `into` towards the start of the sound. */
  backwards?: boolean;
  /** Where it leads first: the effects of its clip, if it has any. */
  through?: AudioNode;
}

/** Something that sounds and can be broken off softly. */
export interface Voice {
  stop(at: number): void;
  /** Lets it die away as its note ends, where that is its way; else it rings on. */
  release?(at: number): void;
}

export const hertz = (pitch: number): number => 440 * 2 ** ((pitch - 69) / 12);

/**
 * Wraps an effect so that it can be bypassed without a click. While it rests bypassed it is not worked out at all,
 * unless it remembers: what it had in it would come out when it is let in again.
 */
export function bypassable(context: BaseAudioContext, input: AudioNode, output: AudioNode, remembers = false) {
  const { start, way, ...whole } = passable(context, remembers);
  start.connect(input);
  output.connect(way.dry);
  return whole;
}

/** Two ways from a start to an end: through an effect by `way.dry`, or past it. Each hangs in while it is heard. */
function passable(context: BaseAudioContext, remembers: boolean) {
  const [start, through, past, end] = [gain(context, 1), gain(context, 1), gain(context, 0), gain(context, 1)];
  start.connect(past);
  if (remembers) through.connect(end);
  const late = afterMs(context);
  const open = new ParamDial([through.gain], (share) => 1 - share);
  const dial = new ManyDial([
    remembers ? open : new SwitchedDial(open, (share) => share < 1, between(through, end), true, late),
    new SwitchedDial(new ParamDial([past.gain]), (share) => share > 0, between(past, end), false, late),
  ]);
  return { input: start, output: end, bypass: dial, start, way: { dry: through } };
}

/** Mixes an effect with what went into it, and makes it bypassable. */
export function mixable(context: BaseAudioContext, input: AudioNode, output: AudioNode, remembers = false) {
  const mix = crossfade(context, 0);
  const { start, way, ...whole } = passable(context, remembers);
  start.connect(input);
  start.connect(mix.dry).connect(way.dry);
  output.connect(mix.wet).connect(way.dry);
  return { ...whole, mix: mix.dial };
}
