import { useState } from "react";
import { stretchNow } from "../../../state/choosing";
import { edit } from "../../../state/edits";
import { useGrid } from "../../../state/useGrid";
import { viewNow } from "../../../state/view";
import { Do, Row, Typed } from "../../../ui/Entry";
import { NumberField } from "../../../ui/Fields";
import type { Base } from "./Chosen";

/** What is done with the chosen points in time. */
export function InTime({ base, several }: { base: Base; several: boolean }) {
  const grid = useGrid();
  const [strength, setStrength] = useState(100);
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
      <Row title="Length">
        <Do words="Halve" off={!several} onDo={() => stretch(0.5)} />
        <Do words="Double" off={!several} onDo={() => stretch(2)} />
        <Do words="Backwards" off={!several} onDo={() => void edit("reverse_points", base)} />
      </Row>
      <Row title="To the grid">
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
      <Typed
        label="Thin out within %"
        hint="1"
        name="thin_points"
        inputs={(text) => ({ ...base, tolerance: Number(text.replace("%", "")) / 100 })}
      />
    </>
  );
}
