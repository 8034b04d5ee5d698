import type { PointerEvent } from "react";
import type { EditInputs, Normalised, Px, Ticks } from "../api/types";
import { type Ground, inside, pointsWithin, tickAt, valueAt, xOf, yOf } from "../geometry/hit";
import { xToTick } from "../geometry/viewport";
import { setChoice } from "../state/choice";
import { chooseMany } from "../state/choosing";
import { edit } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { setHand } from "../state/hand";
import { previewer } from "../state/previewer";
import { viewNow } from "../state/view";
import { drag, type Reach } from "./drag";

type Stroke =
  | { edit: "draw_stretch"; inputs: EditInputs["draw_stretch"] }
  | { edit: "rub_out"; inputs: EditInputs["rub_out"] }
  | null;

/** Where no grid is on, a step is as long as this. */
const STEP: Ticks = 240;

const within = ([from, to]: Ground["window"], tick: Ticks) => Math.min(Math.max(tick, from), to);
const places = (ground: Ground, x: Px, free = true): Ticks =>
  Math.max(
    0,
    Math.round(inside(ground.window, within(ground.window, snapSong(xToTick(ground, x), free ? 0 : gridNow())))),
  );

/** Follows a hand that draws, and says what its trail means. */
function follow(
  event: PointerEvent,
  ground: Ground,
  start: [Px, Px],
  meaning: (trail: [Px, Px][], free: boolean) => Stroke,
  shown: (trail: [Px, Px][]) => [Px, Px][],
): void {
  const trial = previewer();
  const trail: [Px, Px][] = [start];
  const ask = (stroke: Stroke) =>
    stroke?.edit === "rub_out"
      ? trial.ask("rub_out", stroke.inputs)
      : stroke && trial.ask("draw_stretch", stroke.inputs);
  setChoice({ envelopeId: ground.envelope.id, chosen: [], span: null, windowFrom: ground.window[0] });
  drag(
    event,
    {
      move: (reach) => {
        trail.push([start[0] + reach.dx, start[1] + reach.dy]);
        const [x, y] = trail[trail.length - 1];
        setHand({
          hand: {
            kind: "draw",
            envelopeId: ground.envelope.id,
            index: null,
            windowFrom: ground.window[0],
            trail: shown([...trail.slice(0, -1), [x, y]]),
          },
        });
        ask(meaning(trail, reach.free));
      },
      drop: (reach) => {
        setHand({ hand: null });
        const stroke = reach.moved ? meaning(trail, reach.free) : null;
        trial.end(stroke !== null);
        if (stroke?.edit === "rub_out") void edit("rub_out", stroke.inputs);
        else if (stroke) void edit("draw_stretch", stroke.inputs);
      },
      cancel: () => {
        setHand({ hand: null });
        trial.end(false);
      },
    },
    "across",
  );
}

/** Places of a stroke, one to a tick, in order of time. */
function strokeOf(ground: Ground, trail: [Px, Px][]): [Ticks, Normalised][] {
  const found = new Map<Ticks, Normalised>();
  for (const [x, y] of trail) found.set(places(ground, x), valueAt(ground, y));
  return [...found].sort((a, b) => a[0] - b[0]);
}

export function pressFreehand(event: PointerEvent, ground: Ground, start: [Px, Px]): void {
  const meaning = (trail: [Px, Px][]): Stroke => {
    const points = strokeOf(ground, trail);
    return points.length > 1
      ? {
          edit: "draw_stretch",
          inputs: { envelope_id: ground.envelope.id, how: "freehand", points, tolerance: viewNow().tolerance },
        }
      : null;
  };
  follow(event, ground, start, meaning, (trail) => trail);
}

export function pressSteps(event: PointerEvent, ground: Ground, start: [Px, Px]): void {
  const size = gridNow() || STEP;
  const meaning = (trail: [Px, Px][]): Stroke => {
    const points = trail.map(([x, y]): [Ticks, Normalised] => [places(ground, x), valueAt(ground, y)]);
    return {
      edit: "draw_stretch",
      inputs: { envelope_id: ground.envelope.id, how: "steps", points, grid_ticks: size },
    };
  };
  follow(event, ground, start, meaning, (trail) => trail);
}

export function pressRamp(event: PointerEvent, ground: Ground, start: [Px, Px]): void {
  const meaning = (trail: [Px, Px][], free: boolean): Stroke => {
    const ends = [trail[0], trail[trail.length - 1]].map(([x, y]): [Ticks, Normalised] => [
      places(ground, x, free),
      valueAt(ground, y),
    ]);
    return ends[0][0] === ends[1][0]
      ? null
      : { edit: "draw_stretch", inputs: { envelope_id: ground.envelope.id, how: "ramp", points: ends } };
  };
  follow(event, ground, start, meaning, (trail) => [trail[0], trail[trail.length - 1]]);
}

export function pressRub(event: PointerEvent, ground: Ground, start: [Px, Px]): void {
  const meaning = (trail: [Px, Px][], free: boolean): Stroke => {
    const [from, to] = [trail[0][0], trail[trail.length - 1][0]]
      .map((x) => places(ground, x, free))
      .sort((a, b) => a - b);
    return to > from
      ? {
          edit: "rub_out",
          inputs: {
            envelope_id: ground.envelope.id,
            from_tick: from,
            to_tick: to,
            ...(viewNow().push ? { push: true } : {}),
          },
        }
      : null;
  };
  follow(event, ground, start, meaning, (trail) => [trail[0], [trail[trail.length - 1][0], trail[0][1]]]);
}

/** Drags over time: the stretch and the points in it are chosen. */
export function pressRange(event: PointerEvent, ground: Ground, start: [Px, Px]): void {
  const stretch = (reach: Reach): [Ticks, Ticks] => {
    const ends = [start[0], start[0] + reach.dx].map((x) => places(ground, x, reach.free)).sort((a, b) => a - b);
    return [ends[0], ends[1]];
  };
  const take = (reach: Reach) => {
    const [from, to] = stretch(reach);
    const [first, end] = pointsWithin(ground, from, to);
    chooseMany(
      ground.envelope.id,
      Array.from({ length: end - first }, (_, i) => first + i),
      ground.window[0],
      to > from ? [from, to] : null,
    );
  };
  drag(event, { move: take, drop: take, cancel: () => chooseMany(ground.envelope.id, [], ground.window[0]) }, "across");
}

/** Draws a loop around points; those inside it are chosen. A press alone chooses nothing. */
export function pressLasso(event: PointerEvent, ground: Ground, start: [Px, Px], still: () => void): void {
  const trail: [Px, Px][] = [start];
  const take = () => {
    const xs = trail.map(([x]) => x);
    const [first, end] = pointsWithin(ground, tickAt(ground, Math.min(...xs)), tickAt(ground, Math.max(...xs)));
    const inLoop = Array.from({ length: end - first }, (_, i) => first + i).filter((i) =>
      encloses(trail, xOf(ground, ground.envelope.points[i].tick), yOf(ground, ground.envelope.points[i].value)),
    );
    chooseMany(ground.envelope.id, inLoop, ground.window[0]);
  };
  drag(
    event,
    {
      move: (reach) => {
        trail.push([start[0] + reach.dx, start[1] + reach.dy]);
        setHand({
          hand: {
            kind: "draw",
            envelopeId: ground.envelope.id,
            index: null,
            windowFrom: ground.window[0],
            trail: [...trail, start],
          },
        });
        take();
      },
      drop: (reach) => {
        setHand({ hand: null });
        if (!reach.moved) still();
      },
      cancel: () => setHand({ hand: null }),
    },
    "across",
  );
}

/** Whether a loop goes around a place: counted by its crossings of a line to the left of it. */
function encloses(loop: [Px, Px][], x: Px, y: Px): boolean {
  let within = false;
  for (let i = 0, j = loop.length - 1; i < loop.length; j = i++) {
    const [[ax, ay], [bx, by]] = [loop[i], loop[j]];
    if (ay > y !== by > y && x < ax + ((y - ay) * (bx - ax)) / (by - ay)) within = !within;
  }
  return within;
}
