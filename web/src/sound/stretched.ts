import type { SoundEvent } from "../api/types";
import { tell } from "../state/notice";
import { backwards } from "./backwards";

/** A stretch of sound to be made longer or shorter with its pitch kept. */
export interface StretchJob {
  channels: Float32Array[];
  sampleRate: number;
  /** The second of the sound that comes first. */
  into: number;
  /** Seconds of what comes out, from its start, each with the speed there; straight between. */
  rates: number[];
  /** How long what comes out is. */
  seconds: number;
}

/** What is kept at the most, in samples; the oldest goes first. */
const MOST_SAMPLES = 40_000_000;

/** A pass of a loop, as one sound of its own: what it is asked for again by. */
const keyOf = (event: SoundEvent): string =>
  [event.sound, event.into_seconds, event.backwards, event.end_seconds - event.start_seconds, ...speeds(event)].join(
    " ",
  );

/** Speeds from the start of the pass on. */
function speeds({ rates, rate = 1, start_seconds }: SoundEvent): number[] {
  if (!rates) return [0, rate];
  return rates.map((number, i) => (i % 2 === 0 ? Number((number - start_seconds).toFixed(6)) : number));
}

/** Passes of loops whose pitch is kept: worked out ahead, beside the page, and kept for as long as there is room. */
export class Stretched {
  private readonly made = new Map<string, AudioBuffer>();
  private readonly asked = new Map<string, Promise<void>>();
  private readonly waiting = new Map<number, (answer: { out?: Float32Array[]; fault?: string }) => void>();
  private worker: Worker | null = null;
  private count = 0;
  private told = false;

  constructor(private readonly soundOf: (id: string) => AudioBuffer | undefined) {}

  /** A pass that has been made. */
  get(event: SoundEvent): AudioBuffer | undefined {
    return this.made.get(keyOf(event));
  }

  /** Works out what of some events is to be stretched. */
  async ready(events: SoundEvent[]): Promise<void> {
    await Promise.all(events.filter(({ stretched }) => stretched).map((event) => this.ask(event)));
  }

  dispose(): void {
    this.worker?.terminate();
    this.worker = null;
  }

  private ask(event: SoundEvent): Promise<void> {
    const key = keyOf(event);
    const sound = event.sound ? this.soundOf(event.sound) : undefined;
    if (!sound || this.made.has(key)) return Promise.resolve();
    const asked = this.asked.get(key) ?? this.make(event, sound, key).finally(() => this.asked.delete(key));
    this.asked.set(key, asked);
    return asked;
  }

  private async make(event: SoundEvent, sound: AudioBuffer, key: string): Promise<void> {
    const source = event.backwards ? backwards(sound) : sound;
    const from = event.into_seconds ?? 0;
    const job: StretchJob = {
      channels: Array.from({ length: source.numberOfChannels }, (_, i) => source.getChannelData(i)),
      sampleRate: source.sampleRate,
      into: event.backwards ? source.duration - from : from,
      rates: speeds(event),
      seconds: event.end_seconds - event.start_seconds,
    };
    const { out, fault } = await this.run(job);
    if (!out || out[0].length === 0) return this.tellOnce(fault);
    const buffer = new AudioBuffer({ length: out[0].length, sampleRate: job.sampleRate, numberOfChannels: out.length });
    out.forEach((samples, i) => {
      buffer.copyToChannel(samples as Float32Array<ArrayBuffer>, i);
    });
    this.made.set(key, buffer);
    this.forget();
  }

  private run(job: StretchJob): Promise<{ out?: Float32Array[]; fault?: string }> {
    this.worker ??= this.begin();
    const id = this.count++;
    return new Promise((resolve) => {
      this.waiting.set(id, resolve);
      this.worker?.postMessage({ ...job, id });
    });
  }

  private begin(): Worker {
    const worker = new Worker(new URL("./stretch.worker.ts", import.meta.url), { type: "module" });
    worker.onmessage = ({ data }) => {
      this.waiting.get(data.id)?.(data);
      this.waiting.delete(data.id);
    };
    worker.onerror = () => {
      for (const answer of this.waiting.values()) answer({ fault: "the browser runs no worker" });
      this.waiting.clear();
    };
    return worker;
  }

  private tellOnce(fault?: string): void {
    if (!fault || this.told) return;
    this.told = true;
    tell("fault", `The pitch of a loop cannot be kept here (${fault}); it is as high as it is fast.`);
  }

  private forget(): void {
    let sum = 0;
    for (const { length, numberOfChannels } of this.made.values()) sum += length * numberOfChannels;
    for (const [key, { length, numberOfChannels }] of this.made) {
      if (sum <= MOST_SAMPLES || this.made.size === 1) return;
      this.made.delete(key);
      sum -= length * numberOfChannels;
    }
  }
}
