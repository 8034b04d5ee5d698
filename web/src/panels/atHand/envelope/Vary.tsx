import { useState } from "react";
import type { EditInputs, EnvelopePart } from "../../../api/types";
import { editAndTell } from "../../../state/edits";
import { useGhost } from "../../../state/useGhost";
import { useTold } from "../../../state/useTold";
import { Do } from "../../../ui/Entry";
import { NumberField } from "../../../ui/Fields";

const BEAT = 960;
const MOST_SEED = 9999;
const SECONDS: [NonNullable<EditInputs["vary_move"]["every_second"]>, string][] = [
  ["same", "like the others"],
  ["backwards", "backwards"],
  ["over", "turned over"],
  ["left_out", "left out"],
];

/** Repeats a clip's move over several loops, each a little different. */
export function Vary({ envelope }: { envelope: EnvelopePart }) {
  const [repeats, setRepeats] = useState(4);
  const [level, setLevel] = useState(0);
  const [depth, setDepth] = useState(100);
  const [later, setLater] = useState(0);
  const [faster, setFaster] = useState(1);
  const [second, setSecond] = useState(SECONDS[0][0]);
  const [scatter, setScatter] = useState(0);
  const [seed, setSeed] = useState(1);
  const lfo = Boolean(envelope.source);
  const inputs = (as: "points" | "driven"): EditInputs["vary_move"] => ({
    envelope_id: envelope.id,
    repeats,
    depth: depth / 100,
    every_second: second,
    scatter: scatter / 100,
    seed,
    as,
    ...(as === "points" ? { level: level / 100, later_ticks: Math.round(later * BEAT), faster } : {}),
  });
  const points = useGhost("vary_move", () => (lfo ? null : inputs("points")));
  const driven = useGhost("vary_move", () => inputs("driven"));
  const said = useTold("vary_move", inputs(lfo ? "driven" : "points"), TOLD);
  const kept = (set: (wish: number) => void) => async (wish: number) => set(wish);
  return (
    <>
      <p className="faint text-xs">Over so many loops, each a little different. By the last one:</p>
      <div className="grid grid-cols-2 gap-1.5">
        <NumberField label="Loops" unit="" value={repeats} min={2} max={64} onCommit={kept(setRepeats)} />
        <NumberField label="Deeper" unit="%" value={depth} min={0} max={400} onCommit={kept(setDepth)} />
        {!lfo && (
          <>
            <NumberField label="Higher" unit="%" value={level} min={-100} max={100} onCommit={kept(setLevel)} />
            <NumberField label="Later" unit="beats" value={later} min={0} max={64} onCommit={kept(setLater)} />
            <NumberField label="Faster" unit="×" value={faster} min={0.25} max={16} onCommit={kept(setFaster)} />
          </>
        )}
        <NumberField label="Scatter" unit="%" value={scatter} min={0} max={100} onCommit={kept(setScatter)} />
        {scatter > 0 && (
          <NumberField label="Seed" unit="" value={seed} min={0} max={MOST_SEED} onCommit={kept(setSeed)} />
        )}
      </div>
      <label className="faint flex items-center gap-1.5 text-xs">
        <span className="shrink-0">every second one</span>
        <select
          className="select select-xs min-w-0 grow pointer-coarse:h-11"
          aria-label="Every second repeat"
          value={second}
          onChange={(event) => setSecond(event.target.value as typeof second)}
        >
          {SECONDS.filter(([id]) => !lfo || id === "same" || id === "left_out").map(([id, words]) => (
            <option key={id} value={id}>
              {words}
            </option>
          ))}
        </select>
      </label>
      <div className="flex gap-1">
        {!lfo && (
          <span className="flex grow" {...points.props}>
            <Do
              words="Vary the points"
              title="All repeats as points, in a length of its own"
              onDo={() => {
                points.done();
                void editAndTell("vary_move", inputs("points"));
              }}
            />
          </span>
        )}
        <span className="flex grow" {...driven.props}>
          <Do
            words="Vary its depth"
            title="The move stays; an envelope beside it moves its depth"
            onDo={() => {
              driven.done();
              void editAndTell("vary_move", inputs("driven"));
            }}
          />
        </span>
      </div>
      <p className="faint min-h-8 text-xs" role="status">
        {said}
      </p>
    </>
  );
}

/** What is told before it is done: which of the loops are heard, and how much of the change there is room for. */
const TOLD = ["loops_heard", "limited"];
