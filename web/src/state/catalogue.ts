import type { Catalogue, ClipPart, Normalised, ParameterEntry, ScaleEntry, TrackPart } from "../api/types";
import { heightAt } from "../geometry/corners";
import { lookup } from "./lookup";
import type { Model } from "./model";

export interface Placed {
  address: string;
  deviceId: string;
  entry: ParameterEntry;
  scale: ScaleEntry;
}

/** The engine's value at a place of the travel, on the chain the core sends. */
export function engineValue({ engine, steps }: ScaleEntry, value: Normalised): number {
  const place = Math.min(Math.max(value, 0), 1);
  return heightAt(engine, steps ? Math.round(place * steps) / steps : place) ?? 0;
}

/** Sends of a channel to every return, or of each part of a kit. */
function sendsOf(catalogue: Catalogue, tracks: TrackPart[], type: string): ParameterEntry[] {
  const { send, send_prefix: prefix } = catalogue;
  const returns = tracks.filter((track) => track.kind === "return");
  if (type === "channel") return returns.map(({ id, name }) => ({ ...send, id: prefix + id, name }));
  return returns.flatMap(({ id, name }) =>
    (catalogue.devices[type]?.parts ?? []).map((part) => ({
      ...send,
      id: `${part}-${prefix}${id}`,
      name: `${capital(part)}: to ${name}`,
    })),
  );
}

/** The part of a kit by which a parameter is called; null for what belongs to the whole kit. */
export const partOf = ({ parts }: DeviceEntry, { entry }: Placed): string | null =>
  parts.filter((part) => entry.id.startsWith(`${part}-`)).sort((a, b) => b.length - a.length)[0] ?? null;

export const capital = (part: string): string => part.charAt(0).toUpperCase() + part.slice(1).replaceAll("-", " ");

export interface DeviceEntry {
  id: string;
  /** What its parameters' addresses begin with. */
  path: string;
  name: string;
  /** Of a kit. */
  parts: string[];
  list: Placed[];
}

/** What was found for a list of tracks; a change to any track makes a new list. */
const known = new WeakMap<TrackPart[], Map<string, DeviceEntry[]>>();

/** Every parameter of a track's devices, in order, by device. */
export function parametersOf(catalogue: Catalogue, tracks: TrackPart[], track: TrackPart): DeviceEntry[] {
  const all = known.get(tracks) ?? new Map<string, DeviceEntry[]>();
  known.set(tracks, all);
  const found = all.get(track.id) ?? devicesOf(catalogue, tracks, track);
  all.set(track.id, found);
  return found;
}

function devicesOf(catalogue: Catalogue, tracks: TrackPart[], track: TrackPart): DeviceEntry[] {
  const plays = track.kind === "notes" || track.kind === "audio";
  return track.devices.map((device) => {
    const more = plays ? sendsOf(catalogue, tracks, device.type) : [];
    const found = entryOf(catalogue, track.id, device, more);
    if (device.type !== "channel" || track.kind === "master") return found;
    return { ...found, list: found.list.filter(({ entry }) => !catalogue.master_only.includes(entry.id)) };
  });
}

function entryOf(
  catalogue: Catalogue,
  chain: string,
  device: TrackPart["devices"][number],
  more: ParameterEntry[] = [],
): DeviceEntry {
  const type = catalogue.devices[device.type] ?? { name: `Unknown device ${device.type}`, parameters: [], parts: [] };
  const list = [...type.parameters, ...more].map((entry) => ({
    address: `${chain}/${device.id}/${entry.id}`,
    deviceId: device.id,
    entry,
    scale: catalogue.scales[entry.scale],
  }));
  return { id: device.id, path: `${chain}/${device.id}`, name: type.name, parts: type.parts, list };
}

/** What was found for clips with effects of their own. */
const knownClips = new WeakMap<ClipPart, DeviceEntry[]>();

/** Every parameter of a clip's own effects, in order, by device. */
export function parametersOfClip(catalogue: Catalogue, clip: ClipPart): DeviceEntry[] {
  const found = knownClips.get(clip) ?? (clip.devices ?? []).map((device) => entryOf(catalogue, chainId(clip), device));
  knownClips.set(clip, found);
  return found;
}

/** What has a chain of devices: a track, or a clip with effects of its own. */
export type Owner = TrackPart | ClipPart;

/** The first part of the addresses of a chain's parameters. */
export const chainId = (owner: Owner): string => (isClip(owner) ? `clip-${owner.id}` : owner.id);
export const isClip = (owner: Owner): owner is ClipPart => "length_ticks" in owner;
/** What edits of a chain call its owner by. */
export const ownerInput = (owner: Owner): { track_id: string } | { clip_id: string } =>
  isClip(owner) ? { clip_id: owner.id } : { track_id: owner.id };

/** What the device of a parameter stands in. */
export const ownerOf = (model: Model, address: string): Owner | undefined => ownerById(model, address.split("/")[0]);

/** A track or clip by the first part of its parameters' addresses. */
export function ownerById(model: Model, id: string): Owner | undefined {
  return id.startsWith("clip-") ? model.clips[id.slice("clip-".length)] : model.tracks.find((track) => track.id === id);
}

/** The clip to whose own effects a parameter belongs. */
export const ownClip = (model: Model, address: string): ClipPart | null => {
  const owner = ownerOf(model, address);
  return owner && isClip(owner) ? owner : null;
};

/** The track on which a parameter is in its own place: a clip's own effects belong to the track it sounds on. */
export function trackOf(model: Model, address: string): string {
  const id = address.split("/")[0];
  if (!id.startsWith("clip-")) return id;
  return lookup(model).placed[id.slice("clip-".length)]?.[0].owner.slice("track/".length) ?? "";
}

/** Whether an envelope of a clip moves what belongs to the track it lies on, or to the clip itself. */
export const movesHere = (address: string, trackId: string, clipId?: string): boolean =>
  address.startsWith(`${trackId}/`) || (clipId !== undefined && address.startsWith(`clip-${clipId}/`));

/** Parameters of a track, and of its clips, that something moves. */
export const targetsOn = (model: Model, trackId: string): string[] =>
  Object.keys(lookup(model).targets).filter((address) => trackOf(model, address) === trackId);

type Found = Placed & { owner: Owner; device: string };

/** What was found lately; hands ask for the same again and again. */
let lately: { tracks: unknown; clips: unknown; found: Map<string, Found | null> } | null = null;

export function findParameter(catalogue: Catalogue, model: Model, address: string): Found | null {
  if (lately?.tracks !== model.tracks || lately.clips !== model.clips)
    lately = { tracks: model.tracks, clips: model.clips, found: new Map() };
  const before = lately.found.get(address);
  if (before !== undefined) return before;
  const found = lookFor(catalogue, model, address);
  lately.found.set(address, found);
  return found;
}

function lookFor(catalogue: Catalogue, model: Model, address: string): Found | null {
  const owner = ownerOf(model, address);
  if (!owner) return null;
  const devices = isClip(owner) ? parametersOfClip(catalogue, owner) : parametersOf(catalogue, model.tracks, owner);
  const device = devices.find((entry) => entry.id === address.split("/")[1]);
  const placed = device?.list.find((entry) => entry.address === address);
  return device && placed ? { ...placed, owner, device: device.name } : null;
}

const deviceOf = (owner: Owner | undefined, placed: Placed) =>
  owner?.devices?.find((device) => device.id === placed.deviceId);

/** What a knob stands at: where a hand holds it, else its resting value. */
export function knobValue(owner: Owner, placed: Placed): Normalised {
  const device = deviceOf(owner, placed);
  return device?.held[placed.entry.id] ?? device?.values[placed.entry.id] ?? placed.entry.default;
}

/** Whether a parameter is held by hand, so that what moves it waits. */
export const heldIn = (owner: Owner | undefined, placed: Placed): boolean =>
  deviceOf(owner, placed)?.held[placed.entry.id] !== undefined;

export const isHeld = (model: Model, placed: Placed): boolean => heldIn(ownerOf(model, placed.address), placed);
