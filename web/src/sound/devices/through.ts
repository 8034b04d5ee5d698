import { type DeviceSound, gain } from "../parts";

/** Lets everything through as it is: for what cannot be had here. */
export function through(context: BaseAudioContext): DeviceSound {
  const node = gain(context, 1);
  return { input: node, output: node, dials: {} };
}
