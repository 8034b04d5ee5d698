import type { EnvelopePart } from "../api/types";
import { setView, useView, viewNow } from "./view";

export type Role = EnvelopePart["role"];
export const ROLES: readonly Role[] = ["set", "scale", "shift"];

/** Where envelopes of one parameter lie over each other: in the clips of a track, or in its lanes. */
export type Level = "clip" | "lane";

const keyOf = (trackId: string, level: Level): string => `${trackId} ${level}`;

/** The roles of envelopes, each once, in the order in which they act. */
export const layersOf = (envelopes: EnvelopePart[]): Role[] =>
  ROLES.filter((role) => envelopes.some((envelope) => envelope.role === role));

/** Of envelopes that lie over each other, the one in hand: that of the layer wanted, else the first to act. */
export function inHand(envelopes: EnvelopePart[], wanted: Role | undefined): EnvelopePart | undefined {
  const first = layersOf(envelopes)[0];
  return envelopes.find(({ role }) => role === wanted) ?? envelopes.find(({ role }) => role === first);
}

export const useLayer = (trackId: string, level: Level): Role | undefined =>
  useView((state) => state.layer[keyOf(trackId, level)]);

/** Takes a layer in hand. */
export const takeLayer = (trackId: string, level: Level, role: Role): void =>
  setView({ layer: { ...viewNow().layer, [keyOf(trackId, level)]: role } });

/** Turns to the layer after the one in hand. Null where there is only one. */
export function turnLayer(trackId: string, level: Level, envelopes: EnvelopePart[]): Role | null {
  const layers = layersOf(envelopes);
  if (layers.length < 2) return null;
  const now = inHand(envelopes, viewNow().layer[keyOf(trackId, level)])?.role ?? layers[0];
  const next = layers[(layers.indexOf(now) + 1) % layers.length];
  takeLayer(trackId, level, next);
  return next;
}
