import type { PointerEvent } from "react";
import type { EditInputs, PointRecord } from "../api/types";
import { cycleWidth, type Ground, type Hit } from "../geometry/hit";
import { choose } from "../state/choosing";
import { edit } from "../state/edits";
import { previewer } from "../state/previewer";
import { drag, type Reach } from "./drag";
import { finish, isDouble, showHand } from "./hand";

type Shape = EditInputs["shape_segments"]["shape"];
type Marked = Extract<Hit, { index: number }>;

/** The shape of a segment without its point. */
export function shapeOf({ tick: _tick, value: _value, text: _text, ...shape }: PointRecord): Shape {
  return shape as Shape;
}

const clamp = (number: number, low: number, high: number) => Math.min(Math.max(number, low), high);
/** A full bend takes this many pixels; twice or half the count this many. */
const BEND_PX = 90;
const COUNT_PX = 70;

/** What a drag of the mark in a segment makes of its shape: how much it bends, or how often it swings. */
function bent(ground: Ground, index: number, reach: Reach): [shape: Shape, words: string] {
  const [a, b] = [ground.envelope.points[index], ground.envelope.points[index + 1]];
  if (a.shape === "cycle") {
    const wish = (a.cycles ?? 1) * 2 ** (reach.dx / COUNT_PX);
    const cycles = clamp(reach.free ? Math.round(wish * 100) / 100 : Math.max(1, Math.round(wish)), 0.05, 1024);
    return [{ ...(shapeOf(a) as Extract<Shape, { shape: "cycle" }>), cycles, note_ticks: null }, `${cycles} cycles`];
  }
  const start = a.shape === "curved" || a.shape === "ess" ? (a.curve ?? 0) : 0;
  const upward = b.value >= a.value ? 1 : -1;
  const curve = Math.round(clamp(start + (upward * reach.dy) / BEND_PX, -1, 1) * 100) / 100;
  if (a.shape === "ess")
    return [{ ...(shapeOf(a) as Extract<Shape, { shape: "ess" }>), curve }, `bend ${curve.toFixed(2)}`];
  return Math.abs(curve) < 0.03
    ? [{ shape: "straight" }, "straight"]
    : [{ shape: "curved", curve }, `bend ${curve.toFixed(2)}`];
}

function skewed(ground: Ground, index: number, reach: Reach): [shape: Shape, words: string] {
  const shape = shapeOf(ground.envelope.points[index]) as Extract<Shape, { shape: "cycle" }>;
  const turn = shape.wave === "square" ? -1 : 1;
  const skew =
    Math.round(clamp((shape.skew ?? 0.5) + (turn * reach.dx) / cycleWidth(ground, index), 0.02, 0.98) * 100) / 100;
  return [{ ...shape, skew }, `skew ${Math.round(skew * 100)} %`];
}

/** Presses the mark in a segment: it bends, or changes its count or skew; a double press makes it straight. */
export function pressMark(event: PointerEvent, ground: Ground, { kind, index }: Marked): void {
  const { envelope, window } = ground;
  const trial = previewer();
  const make = (reach: Reach) => (kind === "skew" ? skewed : bent)(ground, index, reach);
  const inputs = (shape: Shape): EditInputs["shape_segments"] => ({
    envelope_id: envelope.id,
    runs: [[index, index]],
    shape,
  });
  choose(envelope.id, index, "only", window[0]);
  drag(event, {
    move: (reach) => {
      const [shape, words] = make(reach);
      showHand(ground, "bend", index, words);
      trial.ask("shape_segments", inputs(shape));
    },
    drop: (reach) => {
      finish(trial, reach.moved ? () => edit("shape_segments", inputs(make(reach)[0])) : null);
      if (!reach.moved && isDouble(`bend ${envelope.id} ${index}`))
        void edit("shape_segments", inputs({ shape: "straight" }));
    },
    cancel: () => finish(trial, null),
  });
}
