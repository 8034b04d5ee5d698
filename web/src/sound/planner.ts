import type { SoundEvent, Stretch } from "../api/types";
import { type Ramps, valueAt } from "./dial";
import { eventKey } from "./stretches";

/** A lap's end belongs to the next lap. */
const INSIDE_SECONDS = 1e-6;
/** So much of an event must be left for it to be taken up in its middle. */
const LEAST_LEFT_SECONDS = 0.01;
/** A dial comes back to its plan this far ahead, so that it does not click. */
const SOFT_SECONDS = 0.015;

/** Some settings are taken up once a block: what begins with a block always sounds the same. */
const BLOCK_FRAMES = 128;
export const atBlock = (at: number, rate: number): number =>
  (Math.ceil((at * rate) / BLOCK_FRAMES - 1e-6) * BLOCK_FRAMES) / rate;

/** One run through the song without a jump: song time + lead = time at the output. */
export interface Lap {
  from: number;
  to: number;
  lead: number;
  /** Which one since playing began, from 0. */
  turn: number;
}

/** A moment of the output in the song: which lap, and which second; before the first lap it lies before its start. */
export interface Place {
  turn: number;
  seconds: number;
  lap: Lap;
}

/** What is to be done, in song time: by dials, and by instruments. */
export type Step =
  | { kind: "jump"; address: string; seconds: number; value: number }
  | { kind: "follow"; address: string; ramps: Ramps; from: number; to: number }
  | { kind: "play"; event: SoundEvent; from: number };

/** Ramps in place of those of the song, by address, while something is being tried. */
export type Trial = Record<string, Ramps>;

const NOTHING_TRIED: Trial = {};

/** The ramps that hold, by address. */
export function rampsOf(stretch: Stretch, trial: Trial = NOTHING_TRIED): [string, Ramps][] {
  const own = Object.entries(stretch.ramps).map(([address, ramps]): [string, Ramps] => [
    address,
    trial[address] ?? ramps,
  ]);
  return [...own, ...Object.entries(trial).filter(([address]) => !(address in stretch.ramps))];
}

/** At the start of a lap: dials jump to what holds there, and what sounds there already is taken up in its middle. */
export function stepsAtStart(stretch: Stretch, from: number, trial?: Trial): Step[] {
  const jumps = rampsOf(stretch, trial).map(
    ([address, ramps]): Step => ({ kind: "jump", address, seconds: from, value: valueAt(ramps, from) }),
  );
  const events = (stretch.events ?? []).filter(
    ({ start_seconds, end_seconds }) =>
      start_seconds < from - INSIDE_SECONDS && end_seconds > from + LEAST_LEFT_SECONDS,
  );
  return [...jumps, ...events.map((event): Step => ({ kind: "play", event, from }))];
}

/** What happens in a slice of a stretch; an event belongs to the slice in which it starts. */
export function stepsBetween(stretch: Stretch, from: number, to: number, trial?: Trial): Step[] {
  const dials = rampsOf(stretch, trial).map(([address, ramps]): Step => ({ kind: "follow", address, ramps, from, to }));
  const starts = (stretch.events ?? []).filter(
    ({ start_seconds }) => start_seconds >= from - INSIDE_SECONDS && start_seconds < to - INSIDE_SECONDS,
  );
  return [...dials, ...starts.map((event): Step => ({ kind: "play", event, from: event.start_seconds }))];
}

/** Some dials planned again, from a moment to where planning has come. */
export function stepsAgain(stretch: Stretch, addresses: string[], from: number, to: number, trial?: Trial): Step[] {
  const soft = Math.min(from + SOFT_SECONDS, to);
  return addresses.flatMap((address): Step[] => {
    const ramps = trial?.[address] ?? stretch.ramps[address] ?? [];
    if (ramps.length === 0) return [];
    return [
      { kind: "jump", address, seconds: from, value: valueAt(ramps, soft) },
      { kind: "follow", address, ramps, from: soft, to },
    ];
  });
}

/** Song time at a moment of the output. */
export function positionIn(laps: Lap[], at: number): number {
  const lap = [...laps].reverse().find((entry) => entry.from + entry.lead <= at) ?? laps[0];
  return lap ? Math.max(lap.from, Math.min(at - lap.lead, lap.to - INSIDE_SECONDS)) : 0;
}

/** Where a moment of the output lies. */
export function placeIn(laps: Lap[], at: number): Place | null {
  const lap = [...laps].reverse().find((entry) => entry.from + entry.lead <= at) ?? laps[0];
  return lap ? { turn: lap.turn, seconds: at - lap.lead, lap } : null;
}

/** Beats of a slice of a stretch: when, and whether a bar begins there. */
export function beatsBetween({ beats = [] }: Stretch, from: number, to: number): [seconds: number, bar: boolean][] {
  const found: [number, boolean][] = [];
  for (let i = 0; i < beats.length; i += 2)
    if (beats[i] >= from - INSIDE_SECONDS && beats[i] < to - INSIDE_SECONDS) found.push([beats[i], beats[i + 1] === 1]);
  return found;
}

/** Events that sound no longer in what is to be played. */
export function lostEvents(playing: Iterable<string>, stretch: Stretch): string[] {
  const known = new Set((stretch.events ?? []).map(eventKey));
  return [...playing].filter((key) => !known.has(key));
}
