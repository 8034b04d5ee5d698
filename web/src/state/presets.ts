import { create } from "zustand";
import { presets as api } from "../api/client";
import type { PresetEntry, TrackPart } from "../api/types";
import { editAndTell } from "./edits";
import { faultsSaid, type Say } from "./queue";

/** Settings of devices and chains under names, the same for all songs; null until they were asked for. */
interface Presets {
  list: PresetEntry[] | null;
  /** What they are being looked through for: a track's chain, or one device of it. */
  open: { trackId: string; deviceId: string | null } | null;
}

export const usePresets = create<Presets>(() => ({ list: null, open: null }));

export async function readPresets(): Promise<void> {
  const list = await faultsSaid(() => api.list());
  if (list) usePresets.setState({ list });
}

/** Looks through the presets of a chain, or of one device. */
export function showPresets(trackId: string, deviceId: string | null): void {
  usePresets.setState({ open: { trackId, deviceId } });
  void readPresets();
}

export const closePresets = (): void => usePresets.setState({ open: null });

/** The devices of a chain without its channel, as presets hold them. */
const chainOf = (track: TrackPart): PresetEntry["devices"] =>
  track.devices.filter(({ type }) => type !== "channel").map(({ type, values }) => ({ type, values }));

/** Keeps the setting of a device, or of the whole chain, under a name. */
export async function keepPreset(track: TrackPart, deviceId: string | null, name: string, say: Say): Promise<void> {
  const device = track.devices.find(({ id }) => id === deviceId);
  const devices = device ? [{ type: device.type, values: device.values }] : chainOf(track);
  if (await faultsSaid(() => api.keep(name, device?.type ?? null, devices), say)) await readPresets();
}

export async function removePreset(id: number): Promise<void> {
  if (await faultsSaid(() => api.remove(id))) await readPresets();
}

/** Uses a preset: on a device, or in the place of the whole chain. */
export const givePreset = (track: TrackPart, deviceId: string | null, preset: PresetEntry) =>
  deviceId === null
    ? editAndTell("set_chain", { track_id: track.id, devices: preset.devices, name: preset.name })
    : editAndTell("set_device", {
        track_id: track.id,
        device_id: deviceId,
        values: preset.devices[0].values,
        name: preset.name,
      });
