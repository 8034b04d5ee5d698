import type { Catalogue, Normalised, ParameterEntry, ScaleEntry, TrackPart } from "../api/types";
import { heightAt } from "../geometry/corners";

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

const sendsOf = (catalogue: Catalogue, tracks: TrackPart[]): ParameterEntry[] =>
  tracks
    .filter((track) => track.kind === "return")
    .map((track) => ({ ...catalogue.send, id: catalogue.send_prefix + track.id, name: track.name }));

export interface DeviceEntry {
  id: string;
  name: string;
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
  return track.devices.map((device) => {
    const type = catalogue.devices[device.type] ?? { name: `Unknown device ${device.type}`, parameters: [] };
    const sends =
      device.type === "channel" && (track.kind === "notes" || track.kind === "audio") ? sendsOf(catalogue, tracks) : [];
    const list = [...type.parameters, ...sends].map((entry) => ({
      address: `${track.id}/${device.id}/${entry.id}`,
      deviceId: device.id,
      entry,
      scale: catalogue.scales[entry.scale],
    }));
    return { id: device.id, name: type.name, list };
  });
}

export function findParameter(
  catalogue: Catalogue,
  tracks: TrackPart[],
  address: string,
): (Placed & { track: TrackPart; device: string }) | null {
  const [trackId, deviceId] = address.split("/");
  const track = tracks.find((entry) => entry.id === trackId);
  const device = track && parametersOf(catalogue, tracks, track).find((entry) => entry.id === deviceId);
  const placed = device?.list.find((entry) => entry.address === address);
  return track && device && placed ? { ...placed, track, device: device.name } : null;
}

/** What a knob stands at: where a hand holds it, else its resting value. */
export function knobValue(track: TrackPart, placed: Placed): Normalised {
  const device = track.devices.find((entry) => entry.id === placed.deviceId);
  return device?.held[placed.entry.id] ?? device?.values[placed.entry.id] ?? placed.entry.default;
}

/** Whether a hand holds a parameter, so that what moves it waits. */
export function isHeld(tracks: TrackPart[], { address, deviceId, entry }: Placed): boolean {
  const owner = tracks.find((track) => address.startsWith(`${track.id}/`));
  return owner?.devices.find((device) => device.id === deviceId)?.held[entry.id] !== undefined;
}
