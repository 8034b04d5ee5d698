import type { EnvelopePart, MoveSettings } from "../../../api/types";
import { editTyped } from "../../../state/edits";
import { TextField } from "../../../ui/Fields";
import { SettingKnobs } from "./SettingKnobs";

/** Between which amounts an envelope runs, and how much of it acts. */
export function LimitFields({ envelope, found }: { envelope: EnvelopePart; found: MoveSettings | null }) {
  const envelope_id = envelope.id;
  return (
    <div className="mt-1.5 flex flex-col gap-1.5" role="group" aria-label="Limits">
      <div className="flex gap-1">
        <TextField
          label="Low"
          named
          value={found?.low[1] ?? ""}
          className="w-full pointer-coarse:h-11"
          onCommit={(low) => editTyped("set_limits", { envelope_id, low })}
        />
        <TextField
          label="High"
          named
          value={found?.high[1] ?? ""}
          className="w-full pointer-coarse:h-11"
          onCommit={(high) => editTyped("set_limits", { envelope_id, high })}
        />
      </div>
      <SettingKnobs envelope={envelope} />
    </div>
  );
}
