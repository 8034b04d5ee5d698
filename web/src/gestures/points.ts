import type { PointerEvent } from "react";
import type { EditInputs, EnvelopePart, PointRecord, Ticks, Window } from "../api/types";
import { edit, previewer } from "../song/actions";
import { setSong, song } from "../song/store";
import { type Band, snapTick, valueToY, xToTick, yToValue } from "../song/viewport";
import { type Reach, drag } from "./drag";

/** What the hand needs to know of the curve it is on. */
export interface Ground {
  envelope: EnvelopePart;
  window: Window;
  band: Band;
}

/** Song ticks to the envelope's own time, through the window the core gave. */
const inside = ([from, , position, rate]: Window, tick: Ticks): Ticks => Math.max(0, Math.round(position + (tick - from) * rate));
const outside = ([from, , position, rate]: Window, tick: Ticks): Ticks => from + (tick - position) / rate;

const grid = (reach: Reach): Ticks => (reach.free ? 0 : song().view.grid);

/** Two presses on one mark within this time are a double press, by mouse or finger. */
const DOUBLE_MS = 380;
let lastPress = { mark: "", at: 0 };

function isDouble(mark: string): boolean {
  const now = performance.now();
  const double = lastPress.mark === mark && now - lastPress.at < DOUBLE_MS;
  lastPress = { mark: double ? "" : mark, at: now };
  return double;
}

/** Presses a point: drag to move it, a press alone selects it, a double press removes it. */
export function pressPoint(event: PointerEvent, ground: Ground, index: number): void {
  const { envelope, window, band } = ground;
  const point = envelope.points[index];
  const trial = previewer();
  const inputs = (reach: Reach): EditInputs["move_points"] => {
    const songTick = outside(window, point.tick);
    const wish = snapTick(songTick + xToTick(song().view, reach.dx), grid(reach));
    const tick = Math.abs(reach.dx) < 3 ? point.tick : inside(window, wish);
    const value = Math.abs(reach.dy) < 1 ? point.value : yToValue(band, valueToY(band, point.value) + reach.dy);
    return { envelope_id: envelope.id, points: [{ index, tick, value }] };
  };
  setSong({ envelopeId: envelope.id, pointIndex: index });
  drag(event, {
    move: (reach) => {
      setSong({ hand: { kind: "move", envelopeId: envelope.id, index, windowFrom: ground.window[0] } });
      trial.ask("move_points", inputs(reach));
    },
    drop: (reach) => {
      finish(trial, reach.moved ? () => edit("move_points", inputs(reach)) : null);
      if (!reach.moved && isDouble(`point ${envelope.id} ${index}`)) removePoint(envelope.id, index);
    },
    cancel: () => finish(trial, null),
  });
}

/** Presses the line: a point is added there, and may be dragged at once. */
export function pressLine(event: PointerEvent, ground: Ground, tick: Ticks, value: number): void {
  const { envelope, window, band } = ground;
  const trial = previewer();
  const inputs = (reach: Reach): EditInputs["add_point"] => ({
    envelope_id: envelope.id,
    tick: inside(window, snapTick(tick + xToTick(song().view, reach.dx), grid(reach))),
    value: reach.moved ? yToValue(band, valueToY(band, value) + reach.dy) : value,
  });
  setSong({ envelopeId: envelope.id, pointIndex: null });
  drag(event, {
    move: (reach) => {
      setSong({ hand: { kind: "add", envelopeId: envelope.id, index: null, windowFrom: window[0] } });
      trial.ask("add_point", inputs(reach));
    },
    drop: (reach) => finish(trial, () => edit("add_point", inputs(reach))),
    cancel: () => finish(trial, null),
  });
}

/** Presses the mark in the middle of a segment: up and down bends it, a double press makes it straight. */
export function pressBend(event: PointerEvent, ground: Ground, index: number): void {
  const { envelope } = ground;
  const [a, b] = [envelope.points[index], envelope.points[index + 1]];
  const start = a.shape === "curved" ? (a.curve ?? 0) : 0;
  const trial = previewer();
  const inputs = (reach: Reach): EditInputs["shape_segment"] => {
    const upward = b.value >= a.value ? 1 : -1;
    const curve = Math.round(Math.min(Math.max(start + (upward * reach.dy) / 90, -1), 1) * 100) / 100;
    return { envelope_id: envelope.id, index, shape: Math.abs(curve) < 0.03 ? { shape: "straight" } : { shape: "curved", curve } };
  };
  setSong({ envelopeId: envelope.id, pointIndex: index });
  drag(event, {
    move: (reach) => {
      setSong({ hand: { kind: "bend", envelopeId: envelope.id, index, windowFrom: ground.window[0] } });
      trial.ask("shape_segment", inputs(reach));
    },
    drop: (reach) => {
      finish(trial, reach.moved ? () => edit("shape_segment", inputs(reach)) : null);
      if (!reach.moved && isDouble(`bend ${envelope.id} ${index}`)) void edit("shape_segment", { envelope_id: envelope.id, index, shape: { shape: "straight" } });
    },
    cancel: () => finish(trial, null),
  });
}

function finish(trial: ReturnType<typeof previewer>, commit: (() => Promise<unknown>) | null): void {
  setSong({ hand: null });
  trial.end(commit !== null);
  void commit?.();
}

/** Moves a point by keys: grid steps across, hundredths of the travel up and down; Shift makes both fine. */
export function nudgePoint(ground: Ground, index: number, key: string, fine: boolean): boolean {
  const point = ground.envelope.points[index];
  const across = { ArrowLeft: -1, ArrowRight: 1 }[key] ?? 0;
  const up = { ArrowUp: 1, ArrowDown: -1 }[key] ?? 0;
  if (across === 0 && up === 0) return false;
  const tick = Math.max(0, point.tick + across * (fine ? 10 : song().view.grid || 60));
  const value = Math.min(Math.max(point.value + up * (fine ? 0.001 : 0.01), ground.band.low), ground.band.high);
  void edit("move_points", { envelope_id: ground.envelope.id, points: [{ index, tick, value }] });
  return true;
}

export function removePoint(envelopeId: string, index: number): void {
  setSong({ pointIndex: null });
  void edit("remove_points", { envelope_id: envelopeId, indexes: [index] });
}

/** The middle of a segment on the curve, for its bend mark. */
export const middleTick = (a: PointRecord, b: PointRecord): Ticks => (a.tick + b.tick) / 2;
