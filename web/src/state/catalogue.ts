import type {
  Catalogue,
  ClipPart,
  EnvelopePart,
  Normalised,
  ParameterEntry,
  ScaleEntry,
  TrackPart,
} from "../api/types";
import { heightAt } from "../geometry/corners";
import { lookup } from "./lookup";
import type { Model } from "./model";

export interface Placed {
  address: string;
  deviceId: string;
  entry: ParameterEntry;
  scale: ScaleEntry;
  /** Of a setting of a move: what it stands at, and whether a hand holds it. */
  rests?: Normalised;
  held?: boolean;
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
  const named = new Map((device.macros ?? []).map(({ id, name }) => [id, name]));
  const list = [...type.parameters, ...more].map((entry) => ({
    address: `${chain}/${device.id}/${entry.id}`,
    deviceId: device.id,
    entry: named.has(entry.id) ? { ...entry, name: named.get(entry.id) as string } : entry,
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

/** The song's own tempo. */
export const TEMPO = "song/clock/tempo";
const SONG = "song";

/** The first part of the addresses of settings of moves. */
const MOVE = "move";

/** The move that a parameter is a setting of. */
export function moveOf(model: Model, address: string): EnvelopePart | undefined {
  const [first, id] = address.split("/");
  return first === MOVE ? model.envelopes[id] : undefined;
}

export const settingOf = (envelopeId: string, name: string): string => `${MOVE}/${envelopeId}/${name}`;

/** Settings that can be moved, of points and of an LFO. */
export const settingNames = ({ source }: EnvelopePart): string[] =>
  source ? ["rate", "wave", "depth", "low", "high"] : ["depth", "low", "high"];

/** What the device of a parameter stands in; of a setting, what its move is in. */
export function ownerOf(model: Model, address: string): Owner | undefined {
  const move = moveOf(model, address);
  if (!move) return ownerById(model, address.split("/")[0]);
  const [kind, id] = move.owner.split("/");
  return kind === "clip" ? model.clips[id] : model.tracks.find((track) => track.id === id);
}

/** A track or clip by the first part of its parameters' addresses. */
export function ownerById(model: Model, id: string): Owner | undefined {
  if (id === SONG) return model.tracks[model.tracks.length - 1];
  return id.startsWith("clip-") ? model.clips[id.slice("clip-".length)] : model.tracks.find((track) => track.id === id);
}

/** The clip to whose own effects, or moves, a parameter belongs. */
export const ownClip = (model: Model, address: string): ClipPart | null => {
  const owner = ownerOf(model, address);
  return owner && isClip(owner) ? owner : null;
};

/** The track on which a parameter is in its own place: a clip's own effects belong to the track it sounds on. */
export function trackOf(model: Model, address: string): string {
  const move = moveOf(model, address);
  if (move) {
    const [kind, owner] = move.owner.split("/");
    return kind === "track" ? owner : (lookup(model).placed[owner]?.[0].owner.slice("track/".length) ?? "");
  }
  const id = address.split("/")[0];
  if (id === SONG) return model.tracks[model.tracks.length - 1]?.id ?? "";
  if (!id.startsWith("clip-")) return id;
  return lookup(model).placed[id.slice("clip-".length)]?.[0].owner.slice("track/".length) ?? "";
}

/** Whether an envelope of a clip moves what belongs to the track it lies on, to the clip itself or to a move in it. */
export const movesHere = (model: Model, address: string, trackId: string, clipId?: string): boolean =>
  address.startsWith(`${trackId}/`) ||
  (clipId !== undefined &&
    (address.startsWith(`clip-${clipId}/`) || moveOf(model, address)?.owner === `clip/${clipId}`));

/** Parameters of a track, and of its clips, that something moves or drives. */
export function targetsOn(model: Model, trackId: string): string[] {
  const { targets, drivers } = lookup(model);
  const all = new Set([...Object.keys(targets), ...Object.keys(drivers)]);
  return [...all].filter((address) => trackOf(model, address) === trackId);
}

type Found = Placed & { owner: Owner; device: string };

/** What was found lately; hands ask for the same again and again. */
let lately: { tracks: unknown; clips: unknown; found: Map<string, Found | null> } | null = null;

export function findParameter(catalogue: Catalogue, model: Model, address: string): Found | null {
  const move = moveOf(model, address);
  if (move) return settingFound(catalogue, model, move, address);
  if (address === TEMPO) return tempoFound(catalogue, model);
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

/** The tempo of the song. */
export function tempoFound(catalogue: Catalogue, { head, tracks }: Model): Found {
  const entry = catalogue.tempo;
  const held = head.held_bpm !== undefined;
  const more = { rests: head.tempo_knob, held, owner: tracks[tracks.length - 1], device: "Song" };
  return { address: TEMPO, deviceId: "clock", entry, scale: catalogue.scales[entry.scale], ...more };
}

/** A setting of a move, named after what the move moves: "Cutoff: depth". */
function settingFound(catalogue: Catalogue, model: Model, move: EnvelopePart, address: string): Found | null {
  const id = address.split("/")[2];
  const limit = id === "low" || id === "high";
  const kind = limit && move.role === "shift" ? "-shift" : id === "rate" && move.source?.hertz ? "-free" : "";
  const entry = catalogue.settings[id + kind];
  const owner = ownerOf(model, address);
  if (!entry || !owner || !settingNames(move).includes(id)) return null;
  const moved = findParameter(catalogue, model, move.target);
  const name = `${moved?.entry.name ?? "Move"}: ${id}`;
  const value = move.held?.[id] ?? move.knobs?.[id] ?? entry.default;
  const more = { rests: value, held: move.held?.[id] !== undefined };
  return {
    address,
    deviceId: move.id,
    entry: { ...entry, id, name },
    scale: catalogue.scales[entry.scale],
    ...more,
    owner,
    device: `${moved?.entry.name ?? "Move"} in ${owner.name}`,
  };
}

const deviceOf = (owner: Owner | undefined, placed: Placed) =>
  owner?.devices?.find((device) => device.id === placed.deviceId);

/** What a knob stands at: where a hand holds it, else its resting value. */
export function knobValue(owner: Owner, placed: Placed): Normalised {
  if (placed.rests !== undefined) return placed.rests;
  const device = deviceOf(owner, placed);
  return device?.held[placed.entry.id] ?? device?.values[placed.entry.id] ?? placed.entry.default;
}

/** Whether a parameter is held by hand, so that what moves it waits. */
export const heldIn = (owner: Owner | undefined, placed: Placed): boolean =>
  placed.held ?? deviceOf(owner, placed)?.held[placed.entry.id] !== undefined;

export const isHeld = (model: Model, placed: Placed): boolean => heldIn(ownerOf(model, placed.address), placed);
