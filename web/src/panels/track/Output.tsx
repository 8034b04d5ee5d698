import type { TrackPart } from "../../api/types";
import { edit, editAndTell } from "../../state/edits";

const NEW = "+";

/** Into which group, or the master, a track sounds. */
export function Output({ track, tracks }: { track: TrackPart; tracks: TrackPart[] }) {
  if (track.kind === "master" || track.kind === "carrier") return null;
  const choose = (output: string) =>
    output === NEW
      ? editAndTell("make_group", { track_ids: [track.id] })
      : edit("set_output", { track_ids: [track.id], output });
  const goals = tracks.filter((other) => (other.kind === "group" || other.kind === "master") && other.id !== track.id);
  return (
    <label className="flex flex-col text-xs">
      <span className="faint">Sounds into</span>
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="Sounds into"
        value={track.output ?? ""}
        onChange={(event) => void choose(event.target.value)}
      >
        {goals.map((goal) => (
          <option key={goal.id} value={goal.id}>
            {goal.name}
            {goal.kind === "group" ? " (group)" : ""}
          </option>
        ))}
        <option value={NEW}>a new group</option>
      </select>
    </label>
  );
}
