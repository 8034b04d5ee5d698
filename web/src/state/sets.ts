import { create } from "zustand";
import { type DeviceEntry, isClip, ownerOf, type Placed, parametersOf, parametersOfClip } from "./catalogue";
import type { Model } from "./model";
import { type SongState, song } from "./song";
import { viewNow } from "./view";

/** So many parameters are at hand at once. */
export const EIGHT = 8;

/** A set of one's own: parameters in an order of one's own, under a name. */
export interface OwnSet {
  name: string;
  addresses: string[];
}

interface Sets {
  /** Which of one's own is at hand; null follows the device of the knob that was touched last. */
  chosen: string | null;
  /** Which eight of it. */
  page: number;
  own: OwnSet[];
  songId: number | null;
}

export const useSets = create<Sets>(() => ({ chosen: null, page: 0, own: [], songId: null }));
export const setsNow = useSets.getState;
export const setSets = useSets.setState;

const keyOf = (songId: number) => `kind-satchel-sets:${songId}`;

/** One's own sets of a song, as this browser keeps them. */
export function readSets(songId: number): void {
  let own: OwnSet[] = [];
  try {
    own = JSON.parse(localStorage.getItem(keyOf(songId)) ?? "[]");
  } catch {
    own = [];
  }
  setSets({ own, songId, chosen: null, page: 0 });
}

export function keepSets(own: OwnSet[]): void {
  const { songId } = setsNow();
  setSets({ own });
  if (songId !== null) localStorage.setItem(keyOf(songId), JSON.stringify(own));
}

/** Devices that a set may follow: those of the track at hand, and of the clip whose effect is in focus. */
export function devicesAtHand(
  { catalogue }: SongState,
  model: Model,
  trackId: string | null,
  focus?: string,
): DeviceEntry[] {
  const track = model.tracks.find(({ id }) => id === trackId);
  if (!catalogue || !track) return [];
  const owner = focus ? ownerOf(model, focus) : undefined;
  const ofClip = owner && isClip(owner) ? parametersOfClip(catalogue, owner) : [];
  return [...parametersOf(catalogue, model.tracks, track), ...ofClip];
}

const automatable = (list: Placed[]): string[] =>
  list.filter(({ entry }) => entry.automatable).map(({ address }) => address);

/** All of the set at hand, and what it is called. */
export function setAtHand(
  state: SongState,
  focus: string | undefined,
  trackId: string | null,
): { name: string; addresses: string[] } {
  const { chosen, own } = setsNow();
  const mine = own.find(({ name }) => name === chosen);
  if (mine) return mine;
  const devices = devicesAtHand(state, state.model, trackId, focus);
  const path = focus?.split("/").slice(0, 2).join("/");
  const device = devices.find((one) => one.path === path) ?? devices[0];
  return device ? { name: device.name, addresses: automatable(device.list) } : { name: "", addresses: [] };
}

/** The eight parameters that are at hand now. */
export function eightNow(): string[] {
  const { trackId, focus } = viewNow();
  const { addresses } = setAtHand(song(), trackId ? focus[trackId] : undefined, trackId);
  const page = Math.min(setsNow().page, Math.max(0, Math.ceil(addresses.length / EIGHT) - 1));
  return addresses.slice(page * EIGHT, (page + 1) * EIGHT);
}

/** The next eight, or the ones before. */
export function turnPage(by: number): void {
  const { trackId, focus } = viewNow();
  const { addresses } = setAtHand(song(), trackId ? focus[trackId] : undefined, trackId);
  const pages = Math.max(1, Math.ceil(addresses.length / EIGHT));
  setSets({ page: (Math.min(setsNow().page, pages - 1) + by + pages) % pages });
}
