import { type DeviceSound, gain } from "../parts";

/** What works on notes, or drives knobs, makes no sound itself: the core has done it before they come here. */
export function inCore(context: BaseAudioContext): DeviceSound {
  return { output: gain(context, 0), dials: {} };
}
