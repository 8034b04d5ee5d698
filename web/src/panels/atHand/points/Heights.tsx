import { useState } from "react";
import type { EditInputs, PointRecord, ScaleEntry } from "../../../api/types";
import { edit } from "../../../state/edits";
import { Do, Row, Typed } from "../../../ui/Entry";
import type { Base } from "./Chosen";

interface Props {
  base: Base;
  scale: ScaleEntry;
  first: PointRecord;
  several: boolean;
}

/** What is done with the values of the chosen points. */
export function Heights({ base, scale, first, several }: Props) {
  const [pivot, setPivot] = useState("foot");
  const hint = scale.gain ? "-3 dB" : "10 %";
  return (
    <>
      <Row title="Make level">
        <Do words="with the first" off={!several} onDo={() => void edit("level_points", { ...base, to: "first" })} />
        <Do words="with the one before" onDo={() => void edit("level_points", { ...base, to: "before" })} />
        <Do words="Upside down" off={!several} onDo={() => void edit("flip_points", base)} />
      </Row>
      <div className="grid grid-cols-2 gap-2">
        <Typed label="Level at" hint={first.text} name="level_points" inputs={(to) => ({ ...base, to })} />
        <Typed label="Raise or lower by" hint={hint} name="boost_points" inputs={(amount) => ({ ...base, amount })} />
        <Typed label="Tilt the end by" hint={hint} name="tilt_points" inputs={(amount) => ({ ...base, amount })} />
        <Typed label="Grow or shrink to %" hint="50" name="scale_points" inputs={(text) => sized(base, text, pivot)} />
        <label className="flex flex-col text-xs">
          <span className="faint">about</span>
          <input
            className="input input-sm w-full border-base-300 bg-base-200 px-1.5 pointer-coarse:h-11"
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
      </div>
    </>
  );
}

const sized = (base: Base, text: string, pivot: string): EditInputs["scale_points"] => ({
  ...base,
  factor: Number(text.replace("%", "")) / 100,
  pivot: pivot.trim() || "foot",
});
