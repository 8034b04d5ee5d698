import type { EnvelopePart } from "../../../api/types";
import { Typed } from "../../../ui/Entry";
import { Place } from "./Place";
import { ShapeNumbers } from "./ShapeNumbers";

/** The chosen points, as edits name them. */
export type Base = { envelope_id: string; runs: [number, number][] };

/** Value, position and shape of the chosen points. */
export function Chosen({ envelope, chosen, base }: { envelope: EnvelopePart; chosen: number[]; base: Base }) {
  const first = envelope.points[chosen[0]];
  if (!first) return null;
  const several = chosen.length > 1;
  return (
    <>
      <div className="grid grid-cols-2 gap-2">
        <Typed
          key={`v${chosen}${first.value}`}
          label="Value"
          field="exact-value"
          value={several ? "" : (first.text ?? "")}
          hint={several ? "all to…" : undefined}
          name="enter_points"
          inputs={(value) => ({ ...base, value })}
        />
        <Place key={`p${chosen}${first.tick}`} envelope={envelope} tick={first.tick} base={base} />
      </div>
      <ShapeNumbers envelope={envelope} chosen={chosen} />
    </>
  );
}
