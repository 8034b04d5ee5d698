import { tell } from "../state/notice";
import { measureLoops } from "./loops";

/** Processors that run beside the page, each a file of its own. */
export const WORKLETS = ["crush", "press", "room", "limit", "meter"] as const;
export type Worklet = (typeof WORKLETS)[number];

/** Loads them. Where a page is not secure there are none: what needs them is passed by, and that is said. */
export async function loadWorklets(context: BaseAudioContext): Promise<void> {
  await measureLoops(context.sampleRate);
  if (!context.audioWorklet)
    return tell(
      "fault",
      "This page is not secure (https), so reverb, compressor, bit reducer, pitch shift and limiter are passed by.",
    );
  await Promise.all(WORKLETS.map((name) => context.audioWorklet.addModule(`/worklets/${name}.js`)));
}

/** One of them in the sound graph; null where the page has none. */
export function worklet(context: BaseAudioContext, name: Worklet): AudioWorkletNode | null {
  if (!context.audioWorklet) return null;
  return new AudioWorkletNode(context, name, {
    numberOfInputs: 1,
    numberOfOutputs: 1,
    outputChannelCount: [2],
    channelCount: 2,
    channelCountMode: "explicit",
  });
}
