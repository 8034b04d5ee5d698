import { useState } from "react";
import { chosenNotes, copyNotes, useNotes, withNotes } from "../../../state/noteChoice";
import { useSong } from "../../../state/song";
import { useGrid } from "../../../state/useGrid";
import { Do, Row } from "../../../ui/Entry";
import { NumberField } from "../../../ui/Fields";

const WHAT = ["starts", "ends", "both"] as const;

/** Everything that can be done with the chosen notes. */
export function NotesSection() {
  useNotes();
  useSong((state) => state.model.clips);
  const choice = chosenNotes();
  const grid = useGrid();
  const [strength, setStrength] = useState(100);
  const [swing, setSwing] = useState(0);
  const [what, setWhat] = useState<(typeof WHAT)[number]>("starts");
  const [seed, setSeed] = useState(1);
  if (!choice) return null;
  const { clip, chosen } = choice;
  const louder = chosen.map((i) => clip.notes[i].velocity);
  const mean = Math.round(louder.reduce((sum, velocity) => sum + velocity, 0) / louder.length);
  return (
    <section className="flex flex-col gap-2.5 p-3" aria-label="Notes chosen" data-testid="notes-panel">
      <h3 className="font-bold">
        {chosen.length === 1 ? "1 note" : `${chosen.length} notes`} of {clip.name}
      </h3>
      <Row title="Velocity">
        <NumberField
          label="Velocity"
          unit=""
          value={mean}
          min={1}
          max={127}
          onCommit={async (velocity) => withNotes("set_velocity", { velocity })}
        />
        <Do words="Softer" onDo={() => withNotes("set_velocity", { add: -8 })} />
        <Do words="Louder" onDo={() => withNotes("set_velocity", { add: 8 })} />
      </Row>
      <Row title="Pitch">
        <Do words="Octave down" onDo={() => withNotes("move_notes", { steps: -12 })} />
        <Do words="Down" onDo={() => withNotes("move_notes", { steps: -1 })} />
        <Do words="Up" onDo={() => withNotes("move_notes", { steps: 1 })} />
        <Do words="Octave up" onDo={() => withNotes("move_notes", { steps: 12 })} />
      </Row>
      <Row title="To the grid">
        <select
          className="select select-sm w-24 pointer-coarse:h-11"
          aria-label="What is quantised"
          value={what}
          onChange={(event) => setWhat(event.target.value as (typeof WHAT)[number])}
        >
          {WHAT.map((one) => (
            <option key={one}>{one}</option>
          ))}
        </select>
        <NumberField
          label="Strength"
          unit="%"
          value={strength}
          min={0}
          max={100}
          onCommit={async (to) => setStrength(to)}
        />
        <NumberField label="Swing" unit="%" value={swing} min={0} max={75} onCommit={async (to) => setSwing(to)} />
        <Do
          words="Quantise"
          off={grid === 0}
          title={grid === 0 ? "Switch a grid on first" : "Pull to the grid"}
          onDo={() =>
            withNotes("quantise_notes", { grid_ticks: grid, strength: strength / 100, swing: swing / 100, what })
          }
        />
      </Row>
      <Row title="Length">
        <Do words="Twice as fast" onDo={() => withNotes("pace_notes", { pace: 2 })} />
        <Do words="Half as fast" onDo={() => withNotes("pace_notes", { pace: 0.5 })} />
        <Do words="Legato" onDo={() => withNotes("legato_notes", {})} />
      </Row>
      <Row title="By hand">
        <NumberField label="Seed" unit="" value={seed} min={0} max={9999} onCommit={async (to) => setSeed(to)} />
        <Do words="Humanise" onDo={() => withNotes("humanise_notes", { seed, ticks: 18, velocity: 10 })} />
        <Do words="Copy" onDo={copyNotes} />
        <Do words="Remove" onDo={() => withNotes("remove_notes", {})} />
      </Row>
    </section>
  );
}
