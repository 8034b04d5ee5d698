import { useState } from "react";
import type { EditInputs, EnvelopePart } from "../../../api/types";
import { freeRoles } from "../../../gestures/embedding";
import { editAsking } from "../../../state/edits";
import { ROLES } from "../../../state/layers";

const ROLE_WORDS = { set: "replaces the value", shift: "adds to the value", scale: "multiplies the value" };

type Keep = NonNullable<EditInputs["set_role"]["keep"]>;

/** What an envelope does to the value, and what a change of that keeps. */
export function RoleChoice({ envelope, setOnly }: { envelope: EnvelopePart; setOnly: boolean }) {
  const [keep, setKeep] = useState<Keep>("heard");
  const free = freeRoles(envelope.target, envelope.owner);
  const taken = (role: EnvelopePart["role"]) => role !== envelope.role && !free.includes(role);
  return (
    <div>
      <div className="join w-full" role="group" aria-label="What it does">
        {ROLES.map((role) => (
          <button
            key={role}
            type="button"
            disabled={(setOnly && role !== "set") || taken(role)}
            className={`btn join-item btn-xs grow pointer-coarse:h-10 ${envelope.role === role ? "btn-secondary" : ""}`}
            aria-pressed={envelope.role === role}
            title={taken(role) ? `Another envelope ${role}s it here already` : ROLE_WORDS[role]}
            onClick={() =>
              envelope.role !== role && void editAsking("set_role", { envelope_id: envelope.id, role, keep })
            }
          >
            {role}
          </button>
        ))}
      </div>
      <p className="faint mt-1 text-xs">{envelope.on ? ROLE_WORDS[envelope.role] : "is off"}</p>
      {!setOnly && (
        <label className="faint mt-1 flex items-center gap-1 text-xs">
          <span className="shrink-0">a change keeps</span>
          <select
            className="select select-xs min-w-0 grow pointer-coarse:h-11"
            aria-label="What a change of role keeps"
            value={keep}
            onChange={(event) => setKeep(event.target.value as Keep)}
          >
            <option value="heard">what is heard</option>
            <option value="drawing">the drawing</option>
          </select>
        </label>
      )}
    </div>
  );
}
