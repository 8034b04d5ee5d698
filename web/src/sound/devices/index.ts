import type { DeviceSound } from "../parts";
import { channel, chorus, drive } from "./effects";
import { monoSynth, padSynth, pluck } from "./instruments";
import { drumKit } from "./kit";
import { compressor, level, tremolo } from "./level";
import { inCore } from "./notes";
import { partialBank } from "./partials";
import { loopPlayer } from "./players";
import { sampler } from "./sampler";
import { pitchShift } from "./shift";
import { crush, reverb, width } from "./space";
import { delay, stepGate } from "./time";
import { equaliser, filter, phaser } from "./tone";

/** What devices are made with. */
export interface Studio {
  context: BaseAudioContext;
  drumSound(pitch: number): { id: string; buffer: AudioBuffer } | null;
  /** The parts of the kit, in order. */
  drumParts: string[];
  /** A sound of the store, once it has come. */
  soundOf(key: string): AudioBuffer | undefined;
  /** How many seconds a quarter note lasts where playing is, as a signal. */
  beat: AudioNode;
}

/** The sound of every device type of the core's catalogue. */
export const DEVICE_SOUNDS: Record<string, (studio: Studio) => DeviceSound> = {
  channel: ({ context }) => channel(context),
  "mono-synth": ({ context }) => monoSynth(context),
  "pad-synth": ({ context }) => padSynth(context),
  pluck: ({ context }) => pluck(context),
  "partial-bank": ({ context }) => partialBank(context),
  "drum-kit": drumKit,
  sampler,
  "loop-player": ({ context }) => loopPlayer(context),
  filter: ({ context }) => filter(context),
  drive: ({ context }) => drive(context),
  chorus: ({ context }) => chorus(context),
  delay,
  reverb: ({ context }) => reverb(context),
  equaliser: ({ context }) => equaliser(context),
  phaser: ({ context }) => phaser(context),
  compressor: ({ context }) => compressor(context),
  "bit-reducer": ({ context }) => crush(context),
  tremolo: ({ context }) => tremolo(context),
  "stereo-width": ({ context }) => width(context),
  "step-gate": stepGate,
  "pitch-shift": pitchShift,
  "macro-strip": ({ context }) => inCore(context),
  arpeggiator: ({ context }) => inCore(context),
  "scale-quantiser": ({ context }) => inCore(context),
  gain: ({ context }) => level(context),
};
