import moduleUrl from "signalsmith-stretch?url";
import type { StretchNode } from "signalsmith-stretch";
import { tell } from "../../state/notice";
import { type Dial, type Ramps, valueAt } from "../dial";
import { crossfade, type DeviceSound, gain } from "../parts";
import type { Studio } from "./index";

/** A pitch that moves is told this often. */
const STEP_SECONDS = 0.02;
/** By how much what comes out is later: what the package looks at at once. */
const LATENCY_SECONDS = 0.12 + 0.03;

/**
 * A setting that is told to the processor, moment by moment. The package takes what it is told at once, so each is told
 * when its moment has come.
 */
class ToldDial implements Dial {
  private node: StretchNode | null = null;
  private timers: number[] = [];
  /** Where time does not go by itself, what is to be told, and when. */
  private due: [at: number, value: number][] = [];
  private last = 0;
  private said: number | null = null;

  constructor(
    private readonly context: BaseAudioContext,
    private readonly name: "semitones" | "tonalityHz",
  ) {}

  async attach(node: StretchNode): Promise<void> {
    this.node = node;
    await this.say(this.last);
  }

  follow(ramps: Ramps, from: number, to: number, lead: number): void {
    for (let at = from; at < to; at += STEP_SECONDS) this.later(at + lead, valueAt(ramps, at));
  }

  replan(at: number, value: number): void {
    this.forget();
    this.later(at, value);
  }

  rest(value: number): void {
    this.forget();
    void this.say(value);
  }

  private forget(): void {
    this.due = [];
    for (const timer of this.timers) clearTimeout(timer);
    this.timers = [];
  }

  /** Tells what is due at a moment. */
  async speak(at: number): Promise<void> {
    const now = this.due.filter(([moment]) => moment <= at + STEP_SECONDS / 2);
    this.due = this.due.slice(now.length);
    if (now.length > 0) await this.say(now[now.length - 1][1]);
  }

  private later(at: number, value: number): void {
    if (this.context instanceof OfflineAudioContext) return void this.due.push([at, value]);
    const wait = Math.max(0, (at - this.context.currentTime) * 1000);
    const timer = window.setTimeout(() => {
      this.timers = this.timers.filter((other) => other !== timer);
      void this.say(value);
    }, wait);
    this.timers.push(timer);
  }

  private async say(value: number): Promise<void> {
    this.last = value;
    if (!this.node || value === this.said) return;
    this.said = value;
    await this.node.schedule({ [this.name]: value, active: true });
  }
}

/** The package's node; the package is loaded when it is first asked for. */
async function made(context: BaseAudioContext): Promise<StretchNode> {
  const { default: make } = await import("signalsmith-stretch");
  make.moduleUrl = moduleUrl;
  return make(context);
}

/** Another pitch at the same pace, by the stretching package. Where it cannot be had, nothing is changed. */
export function pitchShift({ context }: Studio): DeviceSound {
  const input = gain(context, 1);
  const output = gain(context, 1);
  const late = new DelayNode(context, { delayTime: LATENCY_SECONDS, maxDelayTime: 1 });
  const shifted = gain(context, 1);
  const mix = crossfade(context, 1);
  const past = crossfade(context, 0);
  const mixed = gain(context, 1);
  input.connect(late);
  late.connect(mix.dry).connect(mixed);
  shifted.connect(mix.wet).connect(mixed);
  mixed.connect(past.dry).connect(output);
  late.connect(past.wet).connect(output);
  const pitch = new ToldDial(context, "semitones");
  const tonality = new ToldDial(context, "tonalityHz");
  const dials = { pitch, tonality, mix: mix.dial, bypass: past.dial };
  if (!context.audioWorklet) {
    late.delayTime.value = 0;
    late.connect(shifted);
    return { input, output, dials };
  }
  const ready = made(context)
    .then(async (node) => {
      input.connect(node).connect(shifted);
      await Promise.all([pitch.attach(node), tonality.attach(node)]);
    })
    .catch(() => {
      late.connect(shifted);
      tell("fault", "This browser cannot shift pitch; the device lets everything through.");
    });
  const speak = async (at: number) => void (await Promise.all([pitch.speak(at), tonality.speak(at)]));
  return { input, output, latency: LATENCY_SECONDS, ready, dials, speak };
}
