import type { DeviceSound } from "../parts";
import { channel, chorus, delay, drive } from "./effects";
import { monoSynth, padSynth, pluck } from "./instruments";
import { compressor, level, tremolo } from "./level";
import { partialBank } from "./partials";
import { drumKit, loopPlayer } from "./players";
import { crush, reverb, width } from "./space";
import { equaliser, filter, phaser } from "./tone";

export interface Studio {
  context: BaseAudioContext;
  drumSound(pitch: number): { id: string; buffer: AudioBuffer } | null;
}

/** The sound of every device type of the core's catalogue. */
export const DEVICE_SOUNDS: Record<string, (studio: Studio) => DeviceSound> = {
  channel: ({ context }) => channel(context),
  "mono-synth": ({ context }) => monoSynth(context),
  "pad-synth": ({ context }) => padSynth(context),
  pluck: ({ context }) => pluck(context),
  "partial-bank": ({ context }) => partialBank(context),
  "drum-kit": (studio) => drumKit(studio.context, studio.drumSound),
  "loop-player": ({ context }) => loopPlayer(context),
  filter: ({ context }) => filter(context),
  drive: ({ context }) => drive(context),
  chorus: ({ context }) => chorus(context),
  delay: ({ context }) => delay(context),
  reverb: ({ context }) => reverb(context),
  equaliser: ({ context }) => equaliser(context),
  phaser: ({ context }) => phaser(context),
  compressor: ({ context }) => compressor(context),
  "bit-reducer": ({ context }) => crush(context),
  tremolo: ({ context }) => tremolo(context),
  "stereo-width": ({ context }) => width(context),
  gain: ({ context }) => level(context),
};
