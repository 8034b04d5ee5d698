import type { EnvelopePart } from "../../api/types";
import { shapeOf } from "../../gestures/bends";
import { runsOf } from "../../state/choosing";
import { edit } from "../../state/edits";
import { made, nameOf, SHAPE_NAMES, ShapeIcon, type ShapeName } from "../../ui/shapes";

/** The chosen points that a segment leaves. */
export const leavingOf = (envelope: EnvelopePart, chosen: number[]): number[] =>
  chosen.filter((index) => index + 1 < envelope.points.length);

/** Shapes for the segments that leave the chosen points, at one press. */
export function ShapeDeeds({ envelope, chosen }: { envelope: EnvelopePart; chosen: number[] }) {
  const leaving = leavingOf(envelope, chosen);
  const first = envelope.points[leaving[0]];
  if (!first) return null;
  const names = new Set(leaving.map((index) => nameOf(shapeOf(envelope.points[index]))));
  const shape = (name: ShapeName) =>
    void edit("shape_segments", { envelope_id: envelope.id, runs: runsOf(leaving), shape: made(name, shapeOf(first)) });
  return SHAPE_NAMES.map((name) => {
    const on = names.size === 1 && names.has(name);
    return (
      <button
        key={name}
        type="button"
        className={`by-choice ${on ? "hue bg-base-300" : ""}`}
        aria-label={name}
        aria-pressed={on}
        title={name}
        onClick={() => shape(name)}
      >
        <ShapeIcon name={name} />
      </button>
    );
  });
}
