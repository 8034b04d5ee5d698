import type { PointerEvent } from "react";
import type { EditInputs, Normalised, Px, Ticks } from "../api/types";
import { heightAt } from "../geometry/corners";
import { type Ground, inside, outside, valueAt, yOf } from "../geometry/hit";
import { snapTick, xToTick } from "../geometry/viewport";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow, choose, chooseNone, modeOf, runsOf } from "../state/choosing";
import { edit } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { nudging } from "../state/nudging";
import { previewer } from "../state/previewer";
import { song } from "../state/song";
import { viewNow } from "../state/view";
import { setWishes } from "../state/wishes";
import { drag, type Reach } from "./drag";
import { finish, isDouble, showHand, step } from "./hand";
import { RESTED_MS } from "./hold";

const clamp = (number: number, low: number, high: number) => Math.min(Math.max(number, low), high);

/** Drags points together; the one at hand lands on the grid. */
function dragPoints(event: PointerEvent, ground: Ground, indexes: number[], at: number, still: () => void): void {
  const { envelope, window, band } = ground;
  const point = envelope.points[at];
  const trial = previewer();
  const inputs = (reach: Reach): EditInputs["shift_points"] => {
    const wish = snapTick(outside(window, point.tick) + xToTick(ground, reach.dx), step(reach));
    const ticks = Math.abs(reach.dx) < 3 ? 0 : Math.max(0, Math.round(inside(window, wish))) - point.tick;
    const value =
      Math.abs(reach.dy) < 1 ? 0 : valueAt({ ...ground, band }, yOf(ground, point.value) + reach.dy) - point.value;
    return { envelope_id: envelope.id, runs: runsOf(indexes), ticks, value, ...(viewNow().push ? { push: true } : {}) };
  };
  drag(
    event,
    {
      move: (reach) => {
        showHand(ground, "move", at);
        trial.ask("shift_points", inputs(reach));
      },
      drop: (reach) => {
        finish(trial, reach.moved ? () => edit("shift_points", inputs(reach)) : null);
        if (!reach.moved) still();
      },
      cancel: () => finish(trial, null),
    },
    "across",
  );
}

/**
 * Presses a point: a drag moves it and all chosen with it, a press alone chooses it, a double press removes it.
 * `tapped` is what a press alone means instead.
 */
export function pressPoint(event: PointerEvent, ground: Ground, index: number, tapped?: () => void): void {
  const { envelope, window } = ground;
  const mode = modeOf(event);
  const before = choiceNow();
  const among = before?.envelope.id === envelope.id && before.chosen.includes(index);
  if (!among || mode !== "only") choose(envelope.id, index, mode, window[0]);
  else setChoice({ windowFrom: window[0] });
  const { chosen } = chosenNow();
  if (!chosen.includes(index)) return void event.stopPropagation();
  dragPoints(event, ground, chosen, index, () => {
    if (tapped) return tapped();
    if (mode === "only" && isDouble(`point ${envelope.id} ${index}`, event.timeStamp))
      return removePoints(envelope.id, [index]);
    if (mode !== "only") return;
    choose(envelope.id, index, "only", window[0]);
    focusPoint(envelope.id, index);
  });
}

/** Presses a segment: both its ends move. */
export function pressSegment(event: PointerEvent, ground: Ground, index: number): void {
  setChoice({ envelopeId: ground.envelope.id, chosen: [index, index + 1], span: null, windowFrom: ground.window[0] });
  dragPoints(event, ground, [index, index + 1], index, () => {});
}

/**
 * Presses the line, or the ground of an empty envelope: a point is added there, and may be dragged at once. On the
 * line the
 * core takes its value from the curve itself; a drag puts it where the hand goes.
 */
export function pressLine(event: PointerEvent, ground: Ground, tick: Ticks, value: Normalised | null, y: Px): void {
  const { envelope, window } = ground;
  const trial = previewer();
  const start = outside(window, tick);
  const inputs = (reach: Reach): EditInputs["add_point"] => ({
    envelope_id: envelope.id,
    tick: Math.max(0, Math.round(inside(window, snapTick(start + xToTick(ground, reach.dx), step(reach))))),
    ...(reach.moved ? { value: valueAt(ground, y + reach.dy) } : value === null ? {} : { value }),
  });
  setChoice({ envelopeId: envelope.id, chosen: [], span: null, windowFrom: window[0] });
  drag(
    event,
    {
      move: (reach) => {
        showHand(ground, "add", null);
        trial.ask("add_point", inputs(reach));
      },
      drop: (reach) => finish(trial, () => addPoint(inputs(reach))),
      cancel: () => finish(trial, null),
    },
    "across",
  );
}

/** A finger's tap on the line, or on the ground of an empty envelope: a point is added; a swipe from there scrolls. */
export function tapLine(event: PointerEvent, ground: Ground, tick: Ticks, value: Normalised | null): void {
  const { envelope, window } = ground;
  setChoice({ envelopeId: envelope.id, chosen: [], span: null, windowFrom: window[0] });
  drag(event, {
    move: () => {},
    drop: ({ moved, at }) => {
      if (!moved && at - event.timeStamp < RESTED_MS)
        void addPoint({ envelope_id: envelope.id, tick, ...(value === null ? {} : { value }) });
    },
    cancel: () => {},
  });
}

/** Where points are on their way: a second press there, before the first is answered, is no second point. */
const adding = new Set<string>();

/** Adds a point and chooses it. */
export async function addPoint(inputs: EditInputs["add_point"]): Promise<void> {
  const place = `${inputs.envelope_id} ${inputs.tick}`;
  if (adding.has(place)) return;
  adding.add(place);
  const added = await edit("add_point", inputs).finally(() => adding.delete(place));
  if (!added) return;
  const points = song().model.envelopes[inputs.envelope_id]?.points ?? [];
  const index = points.findLastIndex((point) => point.tick === inputs.tick);
  if (index >= 0) setChoice({ envelopeId: inputs.envelope_id, chosen: [index], span: null });
}

/**
 * Presses the edge of the box about the chosen points: it stretches them in time, or scales their values about the
 * foot.
 */
export function pressEdge(
  event: PointerEvent,
  ground: Ground,
  edge: "start" | "end" | "top",
  chosen: number[],
  height: number,
): void {
  const { envelope, window } = ground;
  const [first, last] = [envelope.points[chosen[0]], envelope.points[chosen[chosen.length - 1]]];
  const trial = previewer();
  const base = { envelope_id: envelope.id, runs: runsOf(chosen) };
  const moved = (tick: Ticks, reach: Reach) =>
    Math.max(0, Math.round(inside(window, snapTick(outside(window, tick) + xToTick(ground, reach.dx), step(reach)))));
  const span = (reach: Reach): EditInputs["stretch_points"] => ({
    ...base,
    start_tick: edge === "start" ? Math.min(moved(first.tick, reach), last.tick - 1) : first.tick,
    end_tick: edge === "end" ? Math.max(moved(last.tick, reach), first.tick + 1) : last.tick,
    ...(viewNow().push && edge === "end" ? { push: true } : {}),
  });
  const factor = (reach: Reach): EditInputs["scale_points"] => ({
    ...base,
    factor: Math.round(clamp((height - reach.dy) / height, 0, 20) * 100) / 100,
    pivot: "foot",
  });
  drag(
    event,
    {
      move: (reach) => {
        showHand(
          ground,
          "move",
          chosen[edge === "start" ? 0 : chosen.length - 1],
          edge === "top" ? `${Math.round(factor(reach).factor * 100)} %` : undefined,
        );
        if (edge === "top") trial.ask("scale_points", factor(reach));
        else trial.ask("stretch_points", span(reach));
      },
      drop: (reach) =>
        finish(
          trial,
          reach.moved
            ? () => (edge === "top" ? edit("scale_points", factor(reach)) : edit("stretch_points", span(reach)))
            : null,
        ),
      cancel: () => finish(trial, null),
    },
    "across",
  );
}

/**
 * Moves the chosen points by keys: grid steps across, hundredths of the travel up and down; `fine` makes both small.
 */
export function nudge(key: string, fine: boolean): boolean {
  const choice = choiceNow();
  const across = { ArrowLeft: -1, ArrowRight: 1 }[key] ?? 0;
  const up = { ArrowUp: 1, ArrowDown: -1 }[key] ?? 0;
  if (!choice || choice.chosen.length === 0 || (across === 0 && up === 0)) return false;
  const ticks = across * (fine ? 10 : gridNow() || 60);
  void edit("shift_points", {
    envelope_id: choice.envelope.id,
    runs: runsOf(choice.chosen),
    ticks,
    value: up * (fine ? 0.001 : 0.01),
    ...nudging(`points ${choice.envelope.id} ${choice.chosen.length}`),
    ...(viewNow().push ? { push: true } : {}),
  });
  return true;
}

export function removePoints(envelopeId: string, indexes: number[]): void {
  chooseNone();
  void edit("remove_points", {
    envelope_id: envelopeId,
    runs: runsOf(indexes),
    ...(viewNow().push ? { push: true } : {}),
  });
}

/** Walks to the next or previous point, and puts the keyboard on it. */
export function walk(side: 1 | -1): boolean {
  const choice = choiceNow();
  if (!choice || choice.chosen.length === 0) return false;
  const next = (side > 0 ? choice.chosen[choice.chosen.length - 1] : choice.chosen[0]) + side;
  if (next < 0 || next >= choice.envelope.points.length) return false;
  choose(choice.envelope.id, next, "only", chosenNow().windowFrom);
  focusPoint(choice.envelope.id, next);
  return true;
}

/** Wishes the keyboard onto a point, where it is drawn. */
export function focusPoint(envelopeId: string, index: number): void {
  setWishes({ point: { envelopeId, index, windowFrom: chosenNow().windowFrom } });
}

/** The value of the curve under a place, for a new point on the line. */
export function lineAt(ground: Ground, x: number, free: boolean): { tick: Ticks; value: Normalised } | null {
  const [from, to] = ground.window;
  const songTick = clamp(snapSong(xToTick(ground, x), free ? 0 : gridNow()), from, to - 1);
  const tick = Math.max(0, Math.round(inside(ground.window, songTick)));
  const value = heightAt(ground.corners, tick);
  return value === null ? null : { tick, value };
}
