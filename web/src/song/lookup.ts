import type { EnvelopePart, RegionPart } from "../api/types";
import type { Model } from "./model";

/** Regions by track and envelopes by owner, so that no row searches the whole song. */
export interface Lookup {
  regions: Record<string, RegionPart[]>;
  envelopes: Record<string, EnvelopePart[]>;
  sharers: Record<string, number>;
  /** Envelopes by the address they move. */
  targets: Record<string, EnvelopePart[]>;
}

function grouped<T extends { owner: string }>(things: Record<string, T>, order: (a: T, b: T) => number): Record<string, T[]> {
  const groups: Record<string, T[]> = {};
  for (const thing of Object.values(things)) (groups[thing.owner] ??= []).push(thing);
  for (const group of Object.values(groups)) group.sort(order);
  return groups;
}

let last: { regions: Model["regions"]; envelopes: Model["envelopes"]; lookup: Lookup } | null = null;

/** The lookup of a model; the same object while its regions and envelopes stay the same. */
export function lookup({ regions, envelopes }: Model): Lookup {
  if (last && last.regions === regions && last.envelopes === envelopes) return last.lookup;
  const sharers: Record<string, number> = {};
  for (const region of Object.values(regions)) sharers[region.clip_id] = (sharers[region.clip_id] ?? 0) + 1;
  const targets: Record<string, EnvelopePart[]> = {};
  for (const envelope of Object.values(envelopes)) (targets[envelope.target] ??= []).push(envelope);
  const found = {
    regions: grouped(regions, (a, b) => a.start_tick - b.start_tick),
    envelopes: grouped(envelopes, (a, b) => a.place - b.place),
    sharers,
    targets,
  };
  last = { regions, envelopes, lookup: found };
  return found;
}
