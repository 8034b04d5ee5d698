import type { Stretch, Ticks } from "../api/types";
import type { Clock } from "./clock";
import { valueAt } from "./dial";
import { type Library, Performer } from "./performer";
import {
  atBlock,
  beatsBetween,
  type Lap,
  type Place,
  placeIn,
  positionIn,
  stepsAgain,
  stepsAtStart,
  stepsBetween,
} from "./planner";
import type { Rack } from "./rack";
import type { Stretches } from "./stretches";

/** How far ahead of the loudspeaker things are planned. */
const HORIZON_SECONDS = 0.18;
const LOOK_EVERY_MS = 30;
/** How soon after now something new may begin. */
const SOON_SECONDS = 0.05;
/** Laps that one look may end. */
const MOST_LAPS = 20;

export interface Loop {
  on: boolean;
  start_tick: Ticks;
  end_tick: Ticks;
}

/** Where the engine finds what it plays. */
export interface Score extends Library {
  stretches(): Stretches;
  clock(): Clock;
  loop(): Loop;
  endOfSong(): number;
  /** Has a beat clicked at a moment of context time, where clicks are wanted; those of a count-in always are. */
  click(at: number, bar: boolean, counted?: boolean): void;
}

/** Beats before the start, counted in: how many, how far apart, and how many to a bar. */
export interface CountIn {
  beats: number;
  seconds: number;
  bar: number;
}

/** The clock of playing: has the planner's steps done by the sound graph, a little ahead of the loudspeaker. */
export class Engine {
  private laps: Lap[] = [];
  private planned = 0;
  private timer = 0;
  private readonly performer: Performer;
  private trial: Stretch | null = null;

  constructor(
    private readonly context: AudioContext,
    private readonly rack: Rack,
    private readonly score: Score,
    private readonly onEnd: () => void,
  ) {
    this.performer = new Performer(context, rack, score);
  }

  start(tick: Ticks, countIn?: CountIn): void {
    const from = this.score.clock().secondsAt(tick);
    const soon = this.context.currentTime + SOON_SECONDS;
    const lead = (countIn?.beats ?? 0) * (countIn?.seconds ?? 0);
    const begin = atBlock(soon + lead, this.context.sampleRate);
    if (countIn) this.count(countIn, begin - lead);
    this.laps = [this.lap(from, begin, 0)];
    this.planned = from;
    this.beginLap(this.laps[0]);
    this.look();
    this.timer = window.setInterval(() => this.look(), LOOK_EVERY_MS);
  }

  stop(): void {
    clearInterval(this.timer);
    this.hush();
    this.rack.open(this.context.currentTime);
    this.laps = [];
    this.trial = null;
  }

  /** Stops every note at once; what is still to come goes on. */
  hush(): void {
    this.performer.hush(this.context.currentTime);
  }

  /** Song time at the loudspeaker now. */
  position(): number {
    return positionIn(this.laps, this.context.currentTime - (this.context.outputLatency || 0) - this.rack.latency);
  }

  /** Where a moment of context time, as heard, lies in the song. */
  place(at: number): Place | null {
    return placeIn(this.laps, at - this.rack.latency);
  }

  /**
   * How long playing goes straight on from here, at most so many seconds: until the range begins again; not at all
   * while it is counted in.
   */
  straightOn(most: number): number {
    const lap = this.laps[this.laps.length - 1];
    if (!lap || this.context.currentTime < lap.from + lap.lead) return 0;
    return Math.max(0, Math.min(most, lap.to - this.position()));
  }

  /** Takes ramps that are only being tried; null goes back to what holds. */
  tryOut(trial: Stretch | null): void {
    const addresses = [...new Set([...Object.keys(trial?.ramps ?? {}), ...Object.keys(this.trial?.ramps ?? {})])];
    this.trial = trial;
    this.replan(addresses);
  }

  /** What a hand held follows the song again. */
  letGo(address: string): void {
    this.rack.letGo(address);
    this.replan([address]);
  }

  /** What the song has a dial at now, in the engine's unit; null where nothing moves it. */
  drivenTo(address: string): number | null {
    const seconds = this.position();
    const ramps = this.trial?.ramps[address] ?? this.stretchAt(seconds)?.ramps[address];
    return ramps && ramps.length > 0 ? valueAt(ramps, seconds) : null;
  }

  /** Goes on with new stretches: dials turn to their new ramps, voices whose event is gone are broken off. */
  renewed(): void {
    this.trial = null;
    const stretch = this.stretchAt(this.position());
    if (!stretch) return;
    this.replan([...this.rack.dials.keys()].filter((address) => address in stretch.ramps));
    this.performer.renewed(stretch, this.context.currentTime);
  }

  private count({ beats, seconds, bar }: CountIn, at: number): void {
    for (let i = 0; i < beats; i++) this.score.click(at + i * seconds + this.rack.latency, i % bar === 0, true);
  }

  private lap(from: number, at: number, turn: number): Lap {
    const { on, start_tick, end_tick } = this.score.loop();
    const end = this.score.clock().secondsAt(end_tick);
    const loops = on && from < end && end_tick > start_tick;
    return { from, to: loops ? end : Number.POSITIVE_INFINITY, lead: at - from, turn };
  }

  private look(): void {
    if (this.laps.length === 0) return;
    this.performer.forgetPast(this.context.currentTime);
    for (let guard = 0; guard < MOST_LAPS; guard++) {
      const lap = this.laps[this.laps.length - 1];
      this.followLoop(lap);
      const goal = Math.min(this.context.currentTime + HORIZON_SECONDS - lap.lead, lap.to);
      if (goal > this.planned && !this.plan(lap, goal)) return;
      if (this.planned < lap.to) break;
      this.nextLap(lap);
    }
    if (this.position() > this.score.endOfSong()) this.onEnd();
  }

  /** The range may be moved while it plays: ahead of what is planned, the lap follows it. */
  private followLoop(lap: Lap): void {
    lap.to = Math.max(this.lap(this.planned, 0, lap.turn).to, this.planned);
  }

  private nextLap(lap: Lap): void {
    const next = this.lap(this.score.clock().secondsAt(this.score.loop().start_tick), lap.to + lap.lead, lap.turn + 1);
    this.laps = [...this.laps.slice(-3), next];
    this.planned = next.from;
    this.beginLap(next);
  }

  private beginLap(lap: Lap): void {
    const stretch = this.stretchAt(lap.from);
    if (!stretch) return;
    this.performer.hush(lap.from + lap.lead);
    this.performer.begin(stepsAtStart(stretch, lap.from, this.trial?.ramps), lap);
  }

  /** Plans up to a moment of song time. False when the core's answer has not come yet: then the lap waits. */
  private plan(lap: Lap, goal: number): boolean {
    while (this.planned < goal - 1e-9) {
      const stretch = this.stretchAt(this.planned);
      if (!stretch) {
        lap.lead = Math.max(lap.lead, this.context.currentTime + SOON_SECONDS - this.planned);
        return false;
      }
      const to = Math.min(goal, stretch.to_seconds);
      this.performer.perform(stepsBetween(stretch, this.planned, to, this.trial?.ramps), lap);
      for (const [seconds, bar] of beatsBetween(stretch, this.planned, to))
        this.score.click(seconds + lap.lead + this.rack.latency, bar);
      this.planned = to;
    }
    return true;
  }

  private stretchAt(seconds: number): Stretch | undefined {
    const stretches = this.score.stretches();
    const tick = this.score.clock().tickAt(seconds + 1e-7);
    stretches.get(tick + stretches.blockTicks / 2);
    return stretches.get(tick);
  }

  /** Plans some dials again, from just after now to where planning has come. */
  private replan(addresses: string[]): void {
    const lap = this.laps[this.laps.length - 1];
    if (!lap) return;
    const at = this.context.currentTime + 0.01;
    const from = Math.min(Math.max(at - lap.lead, lap.from), this.planned);
    const stretch = this.stretchAt(from);
    if (stretch) this.performer.perform(stepsAgain(stretch, addresses, from, this.planned, this.trial?.ramps), lap);
  }
}
