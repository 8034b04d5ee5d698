import { useState } from "react";
import type { EditInputs, EnvelopePart, ScaleEntry } from "../../api/types";
import { stretchNow } from "../../state/choosing";
import { edit } from "../../state/edits";
import { useGrid } from "../../state/useGrid";
import { viewNow } from "../../state/view";
import { Do, Row, Typed } from "../../ui/Entry";
import { NumberField } from "../../ui/Fields";
import { Place } from "./Place";
import { ShapeNumbers } from "./ShapeNumbers";

type Base = { envelope_id: string; runs: [number, number][] };

/** What is done with the chosen points: exact values, level, turned, in time, by amounts. */
export function Chosen({
  envelope,
  scale,
  chosen,
  base,
}: {
  envelope: EnvelopePart;
  scale: ScaleEntry;
  chosen: number[];
  base: Base;
}) {
  const grid = useGrid();
  const [pivot, setPivot] = useState("foot");
  const [strength, setStrength] = useState(100);
  const first = envelope.points[chosen[0]];
  if (!first) return null;
  const several = chosen.length > 1;
  const stretch = (factor: number) => {
    const ends = stretchNow();
    if (ends)
      void edit("stretch_points", {
        ...base,
        start_tick: ends[0],
        end_tick: ends[0] + Math.max(1, Math.round((ends[1] - ends[0]) * factor)),
        push: viewNow().push,
      });
  };
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
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
      <Row title="Level">
        <Do words="with the first" off={!several} onDo={() => void edit("level_points", { ...base, to: "first" })} />
        <Do words="with the one before" onDo={() => void edit("level_points", { ...base, to: "before" })} />
      </Row>
      <Row title="Turn">
        <Do words="Upside down" off={!several} onDo={() => void edit("flip_points", base)} />
        <Do words="Backwards" off={!several} onDo={() => void edit("reverse_points", base)} />
      </Row>
      <Row title="In time">
        <Do words="Halve" off={!several} onDo={() => stretch(0.5)} />
        <Do words="Double" off={!several} onDo={() => stretch(2)} />
        <Do
          words="Quantise"
          off={grid === 0}
          title={grid === 0 ? "Switch a grid on first" : "Pull to the grid"}
          onDo={() => void edit("quantise_points", { ...base, grid_ticks: grid, strength: strength / 100 })}
        />
        <NumberField
          label="Strength"
          unit="%"
          value={strength}
          min={0}
          max={100}
          onCommit={async (wish) => setStrength(wish)}
        />
      </Row>
      <div className="grid grid-cols-2 gap-1.5">
        <Typed
          label="Raise or lower by"
          hint={scale.gain ? "-3 dB" : "10 %"}
          name="boost_points"
          inputs={(amount) => ({ ...base, amount })}
        />
        <Typed
          label="Tilt the end by"
          hint={scale.gain ? "-3 dB" : "10 %"}
          name="tilt_points"
          inputs={(amount) => ({ ...base, amount })}
        />
        <Typed label="Scale to %" hint="50" name="scale_points" inputs={(text) => scaling(base, text, pivot)} />
        <label className="flex flex-col text-xs">
          <span className="faint">about</span>
          <input
            className="input input-sm w-full bg-base-200 px-1.5"
            aria-label="Pivot"
            list="pivots"
            value={pivot}
            onChange={(event) => setPivot(event.target.value)}
            onKeyDown={(event) => event.stopPropagation()}
          />
          <datalist id="pivots">
            <option value="foot" />
            <option value="middle" />
          </datalist>
        </label>
        <Typed
          label="Thin out within %"
          hint="1"
          name="thin_points"
          inputs={(text) => ({ ...base, tolerance: Number(text.replace("%", "")) / 100 })}
        />
        <Typed label="Level at" hint={first.text} name="level_points" inputs={(to) => ({ ...base, to })} />
      </div>
    </>
  );
}

const scaling = (base: Base, text: string, pivot: string): EditInputs["scale_points"] => ({
  ...base,
  factor: Number(text.replace("%", "")) / 100,
  pivot: pivot.trim() || "foot",
});
