import type { Studio } from "./devices";
import { constant } from "./parts";

/** The sound of devices and of whole tracks by themselves, as playing uses them: to be rendered and measured. */
export { DEVICE_SOUNDS } from "./devices";
export { Limiter } from "./limiter";
export { encode } from "./mixdown/encode";
export { render } from "./mixdown/render";
export { asLoop, withTail } from "./mixdown/shape";
export { Rack } from "./rack";
export { Stretched } from "./stretched";
export { Strip } from "./strip";
export { loadWorklets } from "./worklets";

/** What devices are made with, in a context of one's own: one sound for everything, and a beat of half a second. */
export function studioIn(context: BaseAudioContext, buffer?: AudioBuffer): Studio {
  const drumSound = (pitch: number) => (buffer ? { id: pitch === 46 ? "open-hat" : "hat", buffer } : null);
  const drumParts = ["hat", "open-hat"];
  return { context, drumSound, drumParts, soundOf: () => buffer, beat: constant(context, 0.5) };
}
