import type { StretchJob } from "./stretched";

/** So much is worked out before the first sample that is kept, so that the package has settled. */
const WARM_SECONDS = 0.3;
/** A speed that moves is followed in steps of this length. */
const STEP_SECONDS = 0.01;
const BLOCK = 128;

/** The package's processor, as an audio worklet would hold it. */
interface Processor {
  port: { postMessage(data: unknown): void; onmessage?: ((event: { data: unknown[] }) => void) | null };
  timeMap: { active: boolean; input: number; output: number; rate: number }[];
  audioBuffers: Float32Array[][];
  audioBuffersEnd: number;
  process(inputs: Float32Array[][], outputs: Float32Array[][], parameters: object): boolean;
}
type Maker = new (options: object) => Processor;

/** What an audio worklet offers: so the package's processor runs here, as fast as it can, with all its samples kept. */
const worklet = globalThis as unknown as {
  AudioWorkletProcessor: unknown;
  registerProcessor(name: string, maker: Maker): void;
  sampleRate: number;
  currentTime: number;
};
let maker: Maker | null = null;
worklet.sampleRate = 48_000;
worklet.currentTime = 0;
worklet.AudioWorkletProcessor = class {
  port = { postMessage: () => {} };
};
worklet.registerProcessor = (_name, made) => {
  maker = made;
};
const loaded = import("signalsmith-stretch");

/** A processor for a rate, once it is ready. */
async function processor(channels: number, sampleRate: number): Promise<Processor> {
  await loaded;
  if (!maker) throw new Error("The stretching package offers no processor.");
  worklet.sampleRate = sampleRate;
  const made = new maker({ numberOfInputs: 1, numberOfOutputs: 1, outputChannelCount: [channels] });
  await new Promise<void>((resolve) => {
    made.port.postMessage = (data) => Array.isArray(data) && data[0] === "ready" && resolve();
  });
  made.port.postMessage = () => {};
  return made;
}

/** Where in the sound each moment of what comes out lies: straight pieces, from a little before the start on. */
function timeMap({ into, rates, seconds }: StretchJob, plain: Processor["timeMap"][number]): Processor["timeMap"] {
  const first = {
    ...plain,
    active: true,
    input: into - WARM_SECONDS * rates[1],
    output: -WARM_SECONDS,
    rate: rates[1],
  };
  const pieces = [first];
  let input = into;
  for (let i = 0; i < rates.length; i += 2) {
    const [from, slow] = [rates[i], rates[i + 1]];
    const [to, fast] = i + 3 < rates.length ? [rates[i + 2], rates[i + 3]] : [Math.max(seconds, from) + 1, slow];
    const steps = slow === fast ? 1 : Math.max(1, Math.ceil((to - from) / STEP_SECONDS));
    const each = (to - from) / steps;
    for (let step = 0; step < steps; step++) {
      const rate = slow + ((fast - slow) * (step + 0.5)) / steps;
      pieces.push({ ...plain, active: true, input, output: from + step * each, rate });
      input += rate * each;
    }
  }
  return pieces;
}

async function stretched(job: StretchJob): Promise<Float32Array[]> {
  const { channels, sampleRate, seconds } = job;
  const made = await processor(channels.length, sampleRate);
  made.timeMap = timeMap(job, made.timeMap[0]);
  made.audioBuffers = [channels];
  made.audioBuffersEnd = channels[0].length;
  const length = Math.round(seconds * sampleRate);
  const out = channels.map(() => new Float32Array(length));
  const block = channels.map(() => new Float32Array(BLOCK));
  const warm = Math.ceil((WARM_SECONDS * sampleRate) / BLOCK) * BLOCK;
  for (let at = -warm; at < length; at += BLOCK) {
    worklet.currentTime = at / sampleRate;
    made.process([[]], [block], {});
    if (at >= 0) for (const [c, samples] of block.entries()) out[c].set(samples.subarray(0, length - at), at);
  }
  return out;
}

addEventListener("message", async ({ data }: MessageEvent<StretchJob & { id: number }>) => {
  try {
    const out = await stretched(data);
    postMessage({ id: data.id, out }, { transfer: out.map(({ buffer }) => buffer) });
  } catch (error) {
    postMessage({ id: data.id, fault: String(error) });
  }
});
