import type { EnvelopePart } from "../api/types";
import type { Lookup } from "./lookup";

/** What acts on a parameter. */
export interface Acting {
  clip: "on" | "off" | null;
  lane: "on" | "off" | null;
  /** Whether a macro drives it. */
  macro: boolean;
}

export const movesNow = ({ clip, lane, macro }: Acting): boolean => clip === "on" || lane === "on" || macro;

const stateOf = (list: EnvelopePart[]): "on" | "off" | null =>
  list.length === 0 ? null : list.some((entry) => entry.on) ? "on" : "off";

export function acting(find: Lookup, address: string): Acting {
  const all = find.targets[address] ?? [];
  return {
    clip: stateOf(all.filter((envelope) => envelope.owner.startsWith("clip/"))),
    lane: stateOf(all.filter((envelope) => envelope.owner.startsWith("track/"))),
    macro: address in find.drivers,
  };
}

export function actingWords({ clip, lane, macro }: Acting): string {
  const words = [
    macro && "macro",
    clip && `clip${clip === "off" ? " (off)" : ""}`,
    lane && `lane${lane === "off" ? " (off)" : ""}`,
  ].filter(Boolean);
  return words.join(" + ");
}
