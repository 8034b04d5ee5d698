import type { EnvelopePart, Ticks } from "../api/types";
import { targetsOn } from "./catalogue";
import { type Lookup, lookup } from "./lookup";
import type { Model } from "./model";

/** A parameter that something moves, with the envelopes that do so in a stretch of the song. */
export interface Mover {
  address: string;
  envelopes: EnvelopePart[];
}

/** What is shown of every track, whether anything moves it or not. */
export const always = (trackId: string): string[] => [`${trackId}/channel/volume`, `${trackId}/channel/pan`];

/** Volume and pan of a track, then whatever anything moves on it in a stretch of the song. */
export function moversOn(model: Model, trackId: string, [from, to]: [Ticks, Ticks]): Mover[] {
  const find = lookup(model);
  const first = always(trackId);
  const all = [...new Set([...first, ...targetsOn(model, trackId)])];
  return all
    .map((address) => ({
      address,
      envelopes: (find.targets[address] ?? []).filter((envelope) => actsIn(find, envelope, from, to)),
    }))
    .filter(({ address, envelopes }) => first.includes(address) || envelopes.length > 0 || address in find.drivers);
}

/** A lane acts everywhere, a move of a clip where a region plays it. */
function actsIn(find: Lookup, { owner }: EnvelopePart, from: Ticks, to: Ticks): boolean {
  const [kind, id] = owner.split("/");
  if (kind === "track") return true;
  return (find.placed[id] ?? []).some(
    ({ start_tick, length_ticks, muted }) => !muted && start_tick < to && start_tick + length_ticks > from,
  );
}
