import type { ClipPart, EnvelopePart } from "../api/types";
import { trackOf } from "./catalogue";
import { type Lookup, lookup } from "./lookup";
import type { Model } from "./model";
import { type Armed, type HandWays, isArmed } from "./performing";

/** A move that hands would write over: what it moves, and where it stands. */
export interface Over {
  id: string;
  target: string;
  place: string;
  /** In how many regions it is heard. */
  regions: number;
}

/** Regions of a track that a pass from a place may go over: of the range, where that repeats, else from there on. */
function clipsAhead(model: Model, find: Lookup, trackId: string, from: number): ClipPart[] {
  const { on, start_tick, end_tick } = model.head.range;
  const [start, end] = on && from < end_tick ? [start_tick, end_tick] : [from, Number.POSITIVE_INFINITY];
  const regions = (find.regions[`track/${trackId}`] ?? []).filter(
    (region) => region.start_tick < end && region.start_tick + region.length_ticks > start && !region.muted,
  );
  return [...new Set(regions.map(({ clip_id }) => model.clips[clip_id]))];
}

/** What a pass that begins at a tick would write over where hands touch it. */
export function writtenOver(model: Model, armed: Armed, ways: Pick<HandWays, "into" | "role">, from: number): Over[] {
  if (ways.into === "carrier") return [];
  const find = lookup(model);
  const meant = (role: EnvelopePart["role"]) => (ways.role === "as" ? role !== "scale" : role === ways.role);
  const fits = ({ role, acts, target }: EnvelopePart) => meant(role) && acts && isArmed(armed, target);
  if (ways.into === "lane")
    return Object.values(model.envelopes)
      .filter((one) => one.owner.startsWith("track/") && fits(one))
      .map(({ id, target }) => ({ id, target, place: "lane", regions: 0 }));
  const clips = model.tracks.flatMap(({ id }) =>
    clipsAhead(model, find, id, from).map((clip): [string, ClipPart] => [id, clip]),
  );
  const found = clips.flatMap(([trackId, clip]) =>
    (find.envelopes[`clip/${clip.id}`] ?? [])
      .filter((one) => fits(one) && trackOf(model, one.target) === trackId)
      .map(({ id, target }) => ({ id, target, place: clip.name, regions: find.sharers[clip.id] ?? 1 })),
  );
  return [...new Map(found.map((one) => [one.id, one])).values()];
}
