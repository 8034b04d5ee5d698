import type { Rendered } from "./render";

/** What is softer than this is silence: -90 dBFS. */
const SILENCE = 10 ** (-90 / 20);
/** A tail that is cut off goes out over this long. */
const FADE_SECONDS = 0.01;

type Channels = Float32Array<ArrayBuffer>[];

/** One tap of a render, to the end of what sounds on. */
export function withTail({ channels, frames, rate }: Rendered, tap: number): Channels {
  const pair = channels.slice(2 * tap, 2 * tap + 2);
  const last = Math.max(frames, ...pair.map((samples) => lastHeard(samples) + Math.round(FADE_SECONDS * rate)));
  return pair.map((samples) =>
    faded(samples.slice(0, Math.min(last, samples.length)), Math.round(FADE_SECONDS * rate)),
  );
}

function lastHeard(samples: Float32Array): number {
  for (let i = samples.length - 1; i >= 0; i--) if (Math.abs(samples[i]) > SILENCE) return i;
  return 0;
}

function faded(samples: Float32Array<ArrayBuffer>, frames: number): Float32Array<ArrayBuffer> {
  const from = samples.length - frames;
  for (let i = Math.max(0, from); i < samples.length; i++) samples[i] *= (samples.length - i) / frames;
  return samples;
}

/** One tap as a loop: what sounds on after its end comes in at its start, so that it goes round without a seam. */
export function asLoop({ channels, frames }: Rendered, tap: number): Channels {
  return channels.slice(2 * tap, 2 * tap + 2).map((samples) => {
    const loop = samples.slice(0, frames);
    for (let i = frames; i < samples.length; i++) loop[i % frames] += samples[i];
    return loop;
  });
}
