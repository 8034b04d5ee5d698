import type { EnvelopePart } from "../api/types";
import { edit } from "./edits";

/** What was switched off together, to be switched on again: ids by the address of the parameter. */
const before = new Map<string, string[]>();

/** Switches all that moves a parameter off, and at the next call what was on before on again; one step each. */
export function switchMoves(address: string, envelopes: EnvelopePart[]): void {
  const on = envelopes.filter((envelope) => envelope.on);
  if (on.length > 0) {
    const ids = on.map(({ id }) => id);
    before.set(address, ids);
    void edit("switch_envelopes", { envelope_ids: ids, on: false });
    return;
  }
  const known = (before.get(address) ?? []).filter((id) => envelopes.some((envelope) => envelope.id === id));
  const wanted = known.length > 0 ? known : firstOfEach(envelopes);
  if (wanted.length > 0) void edit("switch_envelopes", { envelope_ids: wanted, on: true });
}

/** Of each place and role one, since only one of them can be on. */
function firstOfEach(envelopes: EnvelopePart[]): string[] {
  const found = new Map(envelopes.map(({ id, owner, role }) => [`${owner} ${role}`, id]));
  return [...found.values()];
}
