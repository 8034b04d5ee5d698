import type { EnvelopePart } from "../api/types";
import type { Lookup } from "./lookup";

/** What acts on a parameter. */
export interface Acting {
  clip: "on" | "off" | null;
  lane: "on" | "off" | null;
}

const standing = (list: EnvelopePart[]): "on" | "off" | null =>
  list.length === 0 ? null : list.some((entry) => entry.on) ? "on" : "off";

export function acting(find: Lookup, address: string): Acting {
  const all = find.targets[address] ?? [];
  return {
    clip: standing(all.filter((envelope) => envelope.owner.startsWith("clip/"))),
    lane: standing(all.filter((envelope) => envelope.owner.startsWith("track/"))),
  };
}

export function actingWords({ clip, lane }: Acting): string {
  const words = [
    clip && `clip${clip === "off" ? " (off)" : ""}`,
    lane && `lane${lane === "off" ? " (off)" : ""}`,
  ].filter(Boolean);
  return words.join(" + ");
}
