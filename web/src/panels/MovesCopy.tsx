import { memo, useEffect, useState } from "react";
import type { EditInputs, MoveRow } from "../api/types";
import { editAndTell } from "../state/edits";
import { api } from "../state/questions";
import { useSong } from "../state/song";

interface Props {
  /** What is copied from, said in the select. */
  label: string;
  goals: { id: string; name: string }[];
  places: (goalId: string) => EditInputs["copy_moves"];
}

/** Copies all moves of a clip or track to another: first what matches and what does not is shown, then it is done. */
export const MovesCopy = memo(
  function MovesCopy({ label, goals, places }: Props) {
    const [goal, setGoal] = useState("");
    const [rows, setRows] = useState<MoveRow[] | null>(null);
    const revision = useSong((state) => state.revision);
    const wish = goals.some(({ id }) => id === goal) ? JSON.stringify(places(goal)) : null;
    // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
    useEffect(() => {
      setRows(null);
      if (!wish) return;
      let over = false;
      api()
        .movesTable(JSON.parse(wish))
        .then(
          (table) => !over && setRows(table.rows),
          () => undefined,
        );
      return () => {
        over = true;
      };
    }, [wish, revision]);
    const matches = rows?.filter((row) => row.target).length ?? 0;
    return (
      <div className="flex flex-col gap-1.5">
        <select
          className="select select-sm w-full pointer-coarse:h-11"
          aria-label={label}
          value={wish ? goal : ""}
          onChange={(event) => setGoal(event.target.value)}
        >
          <option value="">{label} …</option>
          {goals.map(({ id, name }) => (
            <option key={id} value={id}>
              {name}
            </option>
          ))}
        </select>
        {rows && (
          <>
            <ul className="flex flex-col gap-0.5 text-xs" aria-label="What matches">
              {rows.map((row) => (
                <li key={row.envelope_id} className={row.target ? "" : "faint line-through"}>
                  {row.name} {row.target && `→ ${row.target_name}`}
                  {row.target && row.replaces && ", replaces what is there"}
                  {!row.target && <span className="ml-1 inline-block no-underline">no match</span>}
                </li>
              ))}
              {rows.length === 0 && <li className="faint">There are no moves to copy.</li>}
            </ul>
            <button
              type="button"
              className="btn btn-sm btn-primary"
              disabled={matches === 0}
              onClick={() => wish && void editAndTell("copy_moves", JSON.parse(wish)).then(() => setGoal(""))}
            >
              Copy {matches} of {rows.length} {rows.length === 1 ? "move" : "moves"}
            </button>
          </>
        )}
      </div>
    );
  },
  (a, b) => a.label === b.label && a.goals === b.goals,
);
