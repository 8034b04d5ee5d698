import type { Corners, EnvelopePart, Normalised, Px, Ticks, Window } from "../api/types";
import { heightAt } from "./corners";
import { type Band, tickToX, valueToY, xToTick, yToValue } from "./viewport";

/** What the hand needs to know of the curve it is on. */
export interface Ground {
  envelope: EnvelopePart;
  corners: Corners;
  window: Window;
  band: Band;
  pxPerTick: number;
}

/**
 * What a press at a place would take hold of. Points win over bend marks, marks over the line, the line over empty
 * ground.
 */
export type Hit =
  | { kind: "point" | "bend" | "skew" | "segment"; index: number; x: Px; y: Px }
  | { kind: "low" | "high" | "line" | "ground"; x: Px; y: Px };

/** How near is near enough, by mouse and by finger. */
const NEAR: Px = 9;
const NEAR_FINGER: Px = 20;
/** Segments shorter than this have no mark. */
const ROOM: Px = 34;

/** Song ticks to the envelope's own time, through the window the core gave, and back. */
export const inside = ([from, , position, rate]: Window, tick: Ticks): Ticks => position + (tick - from) * rate;
export const outside = ([from, , position, rate]: Window, tick: Ticks): Ticks => from + (tick - position) / rate;

export const xOf = ({ window, pxPerTick }: Ground, tick: Ticks): Px => tickToX({ pxPerTick }, outside(window, tick));
export const tickAt = ({ window, pxPerTick }: Ground, x: Px): Ticks => inside(window, xToTick({ pxPerTick }, x));
/** Points run between the limits, by the depth: the core tells the line from their values to amounts. */
const PLAIN: [factor: number, offset: number] = [1, 0];
export const yOf = ({ band, envelope: { line } }: Ground, value: Normalised): Px => {
  const [factor, offset] = line ?? PLAIN;
  return valueToY(band, value * factor + offset);
};
export const valueAt = ({ band, envelope: { line } }: Ground, y: Px): Normalised => {
  const [factor, offset] = line ?? PLAIN;
  const value = factor === 0 ? 0 : (yToValue(band, y) - offset) / factor;
  return Math.min(Math.max(value, band.low), band.high);
};
/** Curves are amounts, whatever the limits. */
export const yOfAmount = ({ band }: Ground, amount: Normalised): Px => valueToY(band, amount);
export const amountAt = ({ band }: Ground, y: Px): Normalised => yToValue(band, y);

/** The amounts between which an envelope runs, where that is seen: of an LFO, and where they are not full. */
export function limitsOf({ envelope, band }: Ground): { low: Normalised; high: Normalised } | null {
  if (!envelope.limits && !envelope.source) return null;
  const [low, high] = envelope.limits ?? [band.low, band.high];
  return { low, high };
}

/** Places of the points within a stretch of the envelope's time, both ends included. */
export function pointsWithin({ envelope: { points } }: Ground, from: Ticks, to: Ticks): [first: number, end: number] {
  const bound = (tick: Ticks, past: boolean) => {
    let [low, high] = [0, points.length];
    while (low < high) {
      const middle = (low + high) >> 1;
      if (points[middle].tick < tick || (past && points[middle].tick === tick)) low = middle + 1;
      else high = middle;
    }
    return low;
  };
  return [bound(from, false), bound(to, true)];
}

/** The mark in a segment: where it bends, or how often it swings. Null where there is no room. */
export function bendMark(ground: Ground, index: number): [Px, Px] | null {
  const [a, b] = [ground.envelope.points[index], ground.envelope.points[index + 1]];
  if (!b || xOf(ground, b.tick) - xOf(ground, a.tick) < ROOM) return null;
  const middle = (a.tick + b.tick) / 2;
  if (middle < ground.window[2] || middle > inside(ground.window, ground.window[1])) return null;
  const height = a.shape === "cycle" ? null : heightAt(ground.corners, middle);
  const y = height === null ? yOf(ground, (a.value + b.value) / 2) : yOfAmount(ground, height);
  return [xOf(ground, middle), y];
}

/** The mark at the first peak of a swing that can be skewed. */
export function skewMark(ground: Ground, index: number): [Px, Px] | null {
  const [a, b] = [ground.envelope.points[index], ground.envelope.points[index + 1]];
  if (!b || a.shape !== "cycle" || a.wave === "ramp" || a.wave === "saw") return null;
  const share = a.wave === "square" ? 1 - (a.skew ?? 0.5) : (a.skew ?? 0.5);
  const x = xOf(ground, a.tick) + cycleWidth(ground, index) * share;
  return x > xOf(ground, b.tick) || cycleWidth(ground, index) < ROOM ? null : [x, yOf(ground, b.value)];
}

export function cycleWidth(ground: Ground, index: number): Px {
  const [a, b] = [ground.envelope.points[index], ground.envelope.points[index + 1]];
  const count = a.note_ticks ? (b.tick - a.tick) / a.note_ticks : (a.cycles ?? 1);
  return (xOf(ground, b.tick) - xOf(ground, a.tick)) / count;
}

/** @param whole whether a press on the line means its segment rather than a new point */
export function hitAt(ground: Ground, x: Px, y: Px, finger: boolean, whole: boolean): Hit {
  const near = finger ? NEAR_FINGER : NEAR;
  const reach = (near / ground.pxPerTick) * ground.window[3];
  const tick = tickAt(ground, x);
  const { points } = ground.envelope;
  const [first, end] = pointsWithin(ground, tick - reach, tick + reach);
  let best: Hit = { kind: "ground", x, y };
  let nearest = near + 1;
  for (let index = first; index < end; index++) {
    const [px, py] = [xOf(ground, points[index].tick), yOf(ground, points[index].value)];
    const distance = Math.hypot(px - x, py - y);
    if (distance < nearest) [best, nearest] = [{ kind: "point", index, x: px, y: py }, distance];
  }
  if (best.kind === "point") return best;
  const segment = pointsWithin(ground, 0, tick)[1] - 1;
  const marks =
    segment < 0
      ? []
      : ([
          ["skew", skewMark(ground, segment)],
          ["bend", bendMark(ground, segment)],
        ] as const);
  for (const [kind, place] of marks) {
    if (place && Math.hypot(place[0] - x, place[1] - y) <= near)
      return { kind, index: segment, x: place[0], y: place[1] };
  }
  const limit = limitAt(ground, x, y, finger);
  if (limit && ground.envelope.source) return limit;
  const height = heightAt(ground.corners, tick);
  if (height === null || Math.abs(yOfAmount(ground, height) - y) > near) return limit ?? best;
  if (whole && segment >= 0 && points[segment + 1])
    return { kind: "segment", index: segment, x, y: yOfAmount(ground, height) };
  return { kind: "line", x, y: yOfAmount(ground, height) };
}

/** By mouse a limit is taken anywhere on its line; by finger at the grip where it begins, so that a swipe scrolls. */
export const LIMIT_GRIP: Px = 44;

function limitAt(ground: Ground, x: Px, y: Px, finger: boolean): Hit | null {
  const limits = limitsOf(ground);
  const near = finger ? NEAR_FINGER : NEAR;
  if (!limits || (finger && x > tickToX(ground, ground.window[0]) + LIMIT_GRIP)) return null;
  const [low, high] = [yOfAmount(ground, limits.low), yOfAmount(ground, limits.high)];
  const kind = Math.abs(low - y) < Math.abs(high - y) ? "low" : "high";
  const place = kind === "low" ? low : high;
  return Math.abs(place - y) <= near ? { kind, x, y: place } : null;
}

export interface Found {
  ground: Ground;
  hit: Hit;
}

/**
 * What a press would take hold of where an envelope comes round again: of two points that meet at a seam the
 * nearer one,
 * whichever side it belongs to; anything else by the window under the hand, which is the first.
 */
export function hitAmong(grounds: Ground[], x: Px, y: Px, finger: boolean, whole: boolean): Found {
  const found = grounds.map((ground) => ({ ground, hit: hitAt(ground, x, y, finger, whole) }));
  const points = found.filter(({ hit }) => hit.kind === "point");
  const distance = ({ hit }: Found) => Math.hypot(hit.x - x, hit.y - y);
  return points.sort((a, b) => distance(a) - distance(b))[0] ?? found[0];
}
