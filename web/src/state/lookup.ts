import type { EnvelopePart, RegionPart, TrackPart } from "../api/types";
import type { Model } from "./model";

/** Regions by track and envelopes by owner, so that no row searches the whole song. */
export interface Lookup {
  regions: Record<string, RegionPart[]>;
  envelopes: Record<string, EnvelopePart[]>;
  sharers: Record<string, number>;
  /** Regions by the clip they place. */
  placed: Record<string, RegionPart[]>;
  /** Envelopes by the address they move. */
  targets: Record<string, EnvelopePart[]>;
  /** What drives a parameter, by its address. */
  drivers: Record<string, Driver>;
}

/** What stands in the place of a parameter's knob: a macro by its address, and what it makes of it. */
export interface Driver {
  macro: string;
  name: string;
  stops: [place: number, value: number][];
}

function driversOf(tracks: TrackPart[]): Record<string, Driver> {
  const all: Record<string, Driver> = {};
  for (const track of tracks)
    for (const device of track.devices)
      for (const { id, name, drives } of device.macros ?? [])
        for (const { target, stops } of drives) all[target] = { macro: `${track.id}/${device.id}/${id}`, name, stops };
  return all;
}

const alike = <T>(a: T[] | undefined, b: T[]): boolean =>
  a !== undefined && a.length === b.length && a.every((thing, i) => thing === b[i]);

/** Things by a key; a group in which nothing changed stays the same list, so that what shows it is not drawn anew. */
function grouped<T>(
  things: Record<string, T>,
  key: (thing: T) => string,
  order: (a: T, b: T) => number,
  before: Record<string, T[]> = {},
): Record<string, T[]> {
  const groups: Record<string, T[]> = {};
  for (const thing of Object.values(things)) {
    const name = key(thing);
    if (name in groups) groups[name].push(thing);
    else groups[name] = [thing];
  }
  for (const [name, group] of Object.entries(groups)) {
    group.sort(order);
    if (alike(before[name], group)) groups[name] = before[name];
  }
  return groups;
}

type Known = Pick<Model, "regions" | "envelopes" | "tracks">;
let last: (Known & { lookup: Lookup }) | null = null;

/** The lookup of a model; the same object while its regions, envelopes and tracks stay the same. */
export function lookup({ regions, envelopes, tracks }: Model): Lookup {
  if (last && last.regions === regions && last.envelopes === envelopes && last.tracks === tracks) return last.lookup;
  const sharers: Record<string, number> = {};
  for (const region of Object.values(regions)) sharers[region.clip_id] = (sharers[region.clip_id] ?? 0) + 1;
  const same = last?.envelopes === envelopes ? last.lookup : null;
  const found = {
    regions:
      last?.regions === regions
        ? last.lookup.regions
        : grouped(
            regions,
            (region) => region.owner,
            (a, b) => a.start_tick - b.start_tick,
            last?.lookup.regions,
          ),
    envelopes:
      same?.envelopes ??
      grouped(
        envelopes,
        (envelope) => envelope.owner,
        (a, b) => a.place - b.place,
        last?.lookup.envelopes,
      ),
    sharers,
    drivers: last?.tracks === tracks ? last.lookup.drivers : driversOf(tracks),
    placed:
      last?.regions === regions
        ? last.lookup.placed
        : grouped(
            regions,
            (region) => region.clip_id,
            (a, b) => a.start_tick - b.start_tick,
            last?.lookup.placed,
          ),
    targets:
      same?.targets ??
      grouped(
        envelopes,
        (envelope) => envelope.target,
        () => 0,
        last?.lookup.targets,
      ),
  };
  last = { regions, envelopes, tracks, lookup: found };
  return found;
}
