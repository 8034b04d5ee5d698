import type { SoundEvent, Stretch, Ticks } from "../api/types";
import type { Clock } from "./clock";
import type { Ramps } from "./dial";
import type { Voice } from "./parts";
import type { Rack } from "./rack";
import { eventKey, type Stretches } from "./stretches";

/** How far ahead of the loudspeaker things are planned. */
const HORIZON_SECONDS = 0.18;
const LOOK_EVERY_MS = 30;
/** A lap's end belongs to the next lap. */
const INSIDE_SECONDS = 1e-6;

/** One run through the song without a jump: song time + lead = context time. */
interface Lap {
  from: number;
  to: number;
  lead: number;
}

export interface Loop {
  on: boolean;
  start_tick: Ticks;
  end_tick: Ticks;
}

/** Plans what the core computed onto the sound graph, a little ahead of the loudspeaker. */
export class Engine {
  private laps: Lap[] = [];
  private planned = 0;
  private timer = 0;
  private voices = new Map<string, { voice: Voice; until: number; trackId: string }>();
  private trial: Stretch | null = null;

  constructor(
    private readonly context: AudioContext,
    private readonly rack: Rack,
    private readonly stretches: Stretches,
    private readonly clock: () => Clock,
    private readonly loop: () => Loop,
    private readonly soundOf: (id: string) => AudioBuffer | undefined,
    private readonly endOfSong: () => number,
    private readonly onEnd: () => void,
  ) {}

  start(tick: Ticks): void {
    const from = this.clock().secondsAt(tick);
    this.laps = [this.lap(from, this.context.currentTime + 0.06)];
    this.planned = from;
    this.beginLap(this.laps[0]);
    this.look();
    this.timer = window.setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  stop(): void {
    clearInterval(this.timer);
    const now = this.context.currentTime;
    for (const { voice } of this.voices.values()) voice.stop(now);
    this.voices.clear();
    this.laps = [];
    this.trial = null;
  }

  /** Song time at the loudspeaker now. */
  position(): number {
    const now = this.context.currentTime - (this.context.outputLatency || 0);
    const lap = [...this.laps].reverse().find((entry) => entry.from + entry.lead <= now) ?? this.laps[0];
    return lap ? Math.max(lap.from, Math.min(now - lap.lead, lap.to - INSIDE_SECONDS)) : 0;
  }

  /** Takes ramps that are only being tried; null goes back to what holds. */
  tryOut(trial: Stretch | null): void {
    const addresses = [...new Set([...Object.keys(trial?.ramps ?? {}), ...Object.keys(this.trial?.ramps ?? {})])];
    this.trial = trial;
    this.replan(addresses);
  }

  /** Goes on with new stretches: dials turn to their new ramps, voices whose event is gone are broken off. */
  renewed(): void {
    this.trial = null;
    const stretch = this.stretchAt(this.position());
    if (!stretch) return;
    this.replan([...this.rack.dials.keys()].filter((address) => address in stretch.ramps));
    this.dropLostVoices(stretch);
  }

  private lap(from: number, at: number): Lap {
    const { on, start_tick, end_tick } = this.loop();
    const end = this.clock().secondsAt(end_tick);
    const loops = on && from < end && end_tick > start_tick;
    return { from, to: loops ? end : Number.POSITIVE_INFINITY, lead: at - from };
  }

  private look(): void {
    if (this.laps.length === 0) return;
    this.forgetPastVoices();
    for (let guard = 0; guard < 20; guard++) {
      const lap = this.laps[this.laps.length - 1];
      this.followLoop(lap);
      const goal = Math.min(this.context.currentTime + HORIZON_SECONDS - lap.lead, lap.to);
      if (goal > this.planned && !this.plan(lap, goal)) return;
      if (this.planned < lap.to) break;
      this.nextLap(lap);
    }
    if (this.position() > this.endOfSong()) this.onEnd();
  }

  /** The range may be moved while it plays: ahead of what is planned, the lap follows it. */
  private followLoop(lap: Lap): void {
    const wish = this.lap(this.planned, 0).to;
    lap.to = Math.max(wish, this.planned);
  }

  private nextLap(lap: Lap): void {
    const next = this.lap(this.clock().secondsAt(this.loop().start_tick), lap.to + lap.lead);
    this.laps = [...this.laps.slice(-2), next];
    this.planned = next.from;
    this.beginLap(next);
  }

  /** Dials jump to where the lap starts; what sounds there already is taken up in its middle. */
  private beginLap(lap: Lap): void {
    const stretch = this.stretchAt(lap.from);
    if (!stretch) return;
    const at = lap.from + lap.lead;
    for (const { voice } of this.voices.values()) voice.stop(at);
    this.voices.clear();
    for (const [address, ramps] of this.rampsOf(stretch))
      this.rack.dials.get(address)?.replan(at, valueAt(ramps, lap.from));
    for (const event of stretch.events ?? []) {
      if (event.start_seconds < lap.from - 1e-6 && event.end_seconds > lap.from + 0.01) this.play(event, lap, lap.from);
    }
  }

  /** Plans up to a moment of song time. False when the core's answer has not come yet: then the lap waits. */
  private plan(lap: Lap, goal: number): boolean {
    while (this.planned < goal - 1e-9) {
      const stretch = this.stretchAt(this.planned);
      if (!stretch) {
        lap.lead = Math.max(lap.lead, this.context.currentTime + 0.05 - this.planned);
        return false;
      }
      const to = Math.min(goal, stretch.to_seconds);
      for (const [address, ramps] of this.rampsOf(stretch))
        this.rack.dials.get(address)?.follow(ramps, this.planned, to, lap.lead);
      for (const event of stretch.events ?? []) {
        if (event.start_seconds >= this.planned - 1e-6 && event.start_seconds < to - 1e-6)
          this.play(event, lap, event.start_seconds);
      }
      this.planned = to;
    }
    return true;
  }

  private play(event: SoundEvent, lap: Lap, from: number): void {
    const key = eventKey(event);
    const until = Math.min(event.end_seconds, lap.to) + lap.lead;
    const voice = this.rack.instrument(event.track_id)?.play?.({
      at: Math.max(from + lap.lead, this.context.currentTime),
      until,
      late: from - event.start_seconds,
      songSeconds: from,
      pitch: event.pitch ?? 60,
      velocity: event.velocity ?? 100,
      buffer: event.sound ? this.soundOf(event.sound) : undefined,
      into: event.into_seconds ?? 0,
      rate: event.rate ?? 1,
    });
    if (voice) this.voices.set(key, { voice, until, trackId: event.track_id });
  }

  private stretchAt(seconds: number): Stretch | undefined {
    const tick = this.clock().tickAt(seconds + 1e-7);
    this.stretches.get(tick + this.stretches.blockTicks / 2);
    return this.stretches.get(tick);
  }

  private *rampsOf(stretch: Stretch): Generator<[string, Ramps]> {
    for (const [address, ramps] of Object.entries(stretch.ramps)) yield [address, this.rampsNow(address, ramps)];
    for (const [address, ramps] of Object.entries(this.trial?.ramps ?? {}))
      if (!(address in stretch.ramps)) yield [address, ramps];
  }

  private rampsNow(address: string, ramps: Ramps): Ramps {
    return this.trial?.ramps[address] ?? ramps;
  }

  /** Plans some dials anew, from just after now to where planning has come. */
  private replan(addresses: string[]): void {
    const lap = this.laps[this.laps.length - 1];
    if (!lap) return;
    const at = this.context.currentTime + 0.01;
    const from = Math.min(Math.max(at - lap.lead, lap.from), this.planned);
    const stretch = this.stretchAt(from);
    if (!stretch) return;
    for (const address of addresses) {
      const ramps = this.rampsNow(address, stretch.ramps[address] ?? []);
      const dial = this.rack.dials.get(address);
      if (!dial || ramps.length === 0) continue;
      const soft = Math.min(from + 0.015, this.planned);
      dial.replan(from + lap.lead, valueAt(ramps, soft));
      dial.follow(ramps, soft, this.planned, lap.lead);
    }
  }

  private dropLostVoices(stretch: Stretch): void {
    const known = new Set((stretch.events ?? []).map(eventKey));
    const now = this.context.currentTime;
    for (const [key, { voice }] of this.voices) {
      if (known.has(key)) continue;
      voice.stop(now);
      this.voices.delete(key);
    }
  }

  private forgetPastVoices(): void {
    for (const [key, { until }] of this.voices) if (until < this.context.currentTime - 0.5) this.voices.delete(key);
  }
}

function valueAt(ramps: Ramps, seconds: number): number {
  let i = 0;
  while (i + 2 < ramps.length && ramps[i + 2] <= seconds) i += 2;
  if (i + 2 >= ramps.length || ramps[i] >= seconds) return ramps[i + 1];
  return ramps[i + 1] + ((ramps[i + 3] - ramps[i + 1]) * (seconds - ramps[i])) / (ramps[i + 2] - ramps[i]);
}
