import type { EditInputs } from "../api/types";

export type Shape = EditInputs["shape_segments"]["shape"];
type Cycle = Extract<Shape, { shape: "cycle" }>;
/** Every shape that the schema knows, cycles by their wave. */
export type ShapeName = Exclude<Shape, Cycle>["shape"] | Cycle["wave"];

/** What a segment takes when it is given a shape without saying how much. */
const FIRST_BEND = 0.4;
const FIRST_COUNT = 4;

/** Drawings of the shapes, 22 by 14. */
export const SHAPES: Record<ShapeName, string> = {
  hold: "M2 11H19V3",
  straight: "M2 11L20 3",
  curved: "M2 11C12 11 18 9 20 3",
  ess: "M2 11C13 11 9 3 20 3",
  sine: "M2 11C4 11 4.5 3 6.5 3S9 11 11 11S13.5 3 15.5 3S18 11 20 11",
  triangle: "M2 11L6.5 3L11 11L15.5 3L20 11",
  square: "M2 11H6.5V3H11V11H15.5V3H20",
  ramp: "M2 11L11 3V11L20 3V11",
  saw: "M2 11V3L11 11V3L20 11",
};

export const SHAPE_NAMES = Object.keys(SHAPES) as ShapeName[];

export const nameOf = (shape: Shape): ShapeName => (shape.shape === "cycle" ? shape.wave : shape.shape);

const bend = (before: Shape): number => ("curve" in before ? before.curve : FIRST_BEND);

const cycles =
  (wave: Cycle["wave"]) =>
  (before: Shape): Shape =>
    before.shape === "cycle" ? { ...before, wave } : { shape: "cycle", wave, cycles: FIRST_COUNT, skew: 0.5 };

/** Each shape as it is given, keeping what numbers it can from the one before. */
const FRESH: Record<ShapeName, (before: Shape) => Shape> = {
  hold: () => ({ shape: "hold" }),
  straight: () => ({ shape: "straight" }),
  curved: (before) => ({ shape: "curved", curve: bend(before) }),
  ess: (before) => ({ shape: "ess", curve: Math.abs(bend(before)) }),
  sine: cycles("sine"),
  triangle: cycles("triangle"),
  square: cycles("square"),
  ramp: cycles("ramp"),
  saw: cycles("saw"),
};

/** A shape by name. */
export const made = (name: ShapeName, before: Shape): Shape => FRESH[name](before);

export function ShapeIcon({ name }: { name: ShapeName }) {
  return (
    <svg width={22} height={14} aria-hidden="true">
      <path
        d={SHAPES[name]}
        fill="none"
        stroke="currentColor"
        strokeWidth={1.7}
        strokeLinecap="round"
        strokeLinejoin="round"
      />
    </svg>
  );
}
