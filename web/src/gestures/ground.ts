import type { PointerEvent } from "react";
import type { Px, Ticks } from "../api/types";
import { type Found, type Ground, hitAmong, inside, outside, tickAt, valueAt, yOfAmount } from "../geometry/hit";
import { setChoice } from "../state/choice";
import { chooseNone } from "../state/choosing";
import { gridNow, snapSong } from "../state/grid";
import { type Tool, viewNow } from "../state/view";
import { pressMark } from "./bends";
import { isDouble } from "./hand";
import { pressLimit } from "./limits";
import { addPoint, lineAt, pressLine, pressPoint, pressSegment, tapLine } from "./points";
import { pressFreehand, pressLasso, pressRamp, pressRange, pressRub, pressSteps } from "./strokes";

const STROKES: Partial<Record<Tool, (event: PointerEvent, ground: Ground, start: [Px, Px]) => void>> = {
  freehand: pressFreehand,
  steps: pressSteps,
  ramp: pressRamp,
  rub: pressRub,
  range: pressRange,
};

/** As far from its middle a point is still pressed itself; a finger's tap further off, on the line, adds one. */
const MARK: Px = 11;

/** What a tap beside a point means where it is on the line: a point of its own. */
function tapOnLine(ground: Ground, x: Px, y: Px): (() => void) | null {
  const spot = lineAt(ground, x, false);
  if (!spot || Math.abs(yOfAmount(ground, spot.value) - y) > 2 * MARK) return null;
  return () => void addPoint({ envelope_id: ground.envelope.id, tick: spot.tick });
}

export const fingers = (event: { pointerType: string }) => event.pointerType === "touch";

/** What a press would do at a place, with the tool at hand. */
export function aim(
  grounds: Ground[],
  x: Px,
  y: Px,
  event: { pointerType: string; ctrlKey: boolean; metaKey: boolean },
): Found {
  if (viewNow().tool !== "points") return { ground: grounds[0], hit: { kind: "ground", x, y } };
  return hitAmong(grounds, x, y, fingers(event), event.ctrlKey || event.metaKey || viewNow().ways.whole);
}

/** Where a press came down: the windows about it, the place in the strip, and what empty ground means. */
export interface Pressed {
  ground: Ground;
  /** Where the envelope goes on before and after, without a gap. */
  beside: Ground[];
  place: [Px, Px];
  onGround?: (tick: Ticks) => void;
}

/** A press on an envelope's strip: whatever the tool and the place make of it. */
export function pressEnvelope(event: PointerEvent, { ground, beside, place: [x, y], onGround }: Pressed): void {
  const { tool } = viewNow();
  const stroke = STROKES[tool];
  if (stroke) return stroke(event, ground, [x, y]);
  const { ground: aimed, hit } = aim([ground, ...beside], x, y, event);
  if (hit.kind === "low" || hit.kind === "high") return pressLimit(event, aimed, hit.kind, [x, y]);
  if (hit.kind === "point") {
    const line = fingers(event) && Math.hypot(hit.x - x, hit.y - y) > MARK ? tapOnLine(aimed, x, y) : null;
    return pressPoint(event, aimed, hit.index, line ?? undefined);
  }
  if (hit.kind === "segment") return pressSegment(event, ground, hit.index);
  if (hit.kind === "bend" || hit.kind === "skew") return pressMark(event, ground, hit);
  const spot = hit.kind === "line" ? lineAt(ground, x, event.altKey) : firstSpot(ground, x, y);
  const value = hit.kind === "line" ? null : (spot?.value ?? null);
  if (spot && fingers(event)) return tapLine(event, ground, spot.tick, value);
  if (spot) return pressLine(event, ground, spot.tick, value, y);
  if (!fingers(event) || tool === "lasso")
    pressLasso(event, ground, [x, y], () => pressNothing(event, { ground, beside, place: [x, y], onGround }));
}

/** On an empty envelope any place may get its first point. */
function firstSpot(ground: Ground, x: Px, y: Px): { tick: Ticks; value: number } | null {
  if (ground.envelope.points.length > 0 || ground.envelope.source || viewNow().tool !== "points") return null;
  return { tick: Math.max(0, Math.round(tickAt(ground, x))), value: valueAt(ground, y) };
}

/** A press on empty ground without a drag: twice it adds a point there, once it lets go of the choice. */
function pressNothing(event: PointerEvent, { ground, place: [x, y], onGround }: Pressed): void {
  const { envelope, window } = ground;
  const song = outside(window, tickAt(ground, x));
  if (!fingers(event) && viewNow().tool === "points" && isDouble(`ground ${envelope.id}`, event.timeStamp)) {
    const tick = Math.max(0, Math.round(inside(window, snapSong(song, gridNow()))));
    return void addPoint({ envelope_id: envelope.id, tick, value: valueAt(ground, y) });
  }
  chooseNone();
  setChoice({ envelopeId: envelope.id });
  onGround?.(song);
}

/** A tap on empty ground lets go of the choice. */
export function tapNothing({ ground, beside, place: [x, y], onGround }: Pressed): void {
  const finger = { pointerType: "touch", ctrlKey: false, metaKey: false };
  if (viewNow().tool !== "points" || aim([ground, ...beside], x, y, finger).hit.kind !== "ground") return;
  chooseNone();
  onGround?.(outside(ground.window, tickAt(ground, x)));
}
