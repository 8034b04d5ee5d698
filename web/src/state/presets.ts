import { create } from "zustand";
import { presets as api } from "../api/client";
import type { PresetEntry, TrackPart } from "../api/types";
import { chainId, type Owner, ownerInput } from "./catalogue";
import { editAndTell } from "./edits";
import { faultsSaid, type Say } from "./queue";
import { song } from "./song";

/** Settings of devices and chains under names, the same for all songs; null until they were asked for. */
interface Presets {
  list: PresetEntry[] | null;
  /** What they are being looked through for: the chain of a track or clip, or one device of it. */
  open: { chain: string; deviceId: string | null } | null;
}

export const usePresets = create<Presets>(() => ({ list: null, open: null }));

export async function readPresets(say?: Say): Promise<void> {
  const list = await faultsSaid(() => api.list(), say);
  if (list) usePresets.setState({ list });
}

/** Looks through the presets of a chain, or of one device. */
export function showPresets(owner: Owner, deviceId: string | null): void {
  usePresets.setState({ open: { chain: chainId(owner), deviceId } });
  void readPresets();
}

export const closePresets = (): void => usePresets.setState({ open: null });

/** The devices of a chain without its channel, as presets hold them. */
const chainOf = (owner: Owner): PresetEntry["devices"] =>
  (owner.devices ?? []).filter(({ type }) => type !== "channel").map(kept);

/** A device as presets hold it: without its sends, which belong to the song. */
function kept({ type, values, sound, macros }: TrackPart["devices"][number]): PresetEntry["devices"][number] {
  const known = song().catalogue?.devices[type]?.parameters.map(({ id }) => id) ?? [];
  const own = Object.fromEntries(Object.entries(values).filter(([id]) => known.includes(id)));
  return { type, values: own, ...(sound ? { sound } : {}), ...(macros?.length ? { macros } : {}) };
}

/** Keeps the setting of a device, or of the whole chain, under a name. */
export async function keepPreset(owner: Owner, deviceId: string | null, name: string, say: Say): Promise<void> {
  const device = owner.devices?.find(({ id }) => id === deviceId);
  const devices = device ? [kept(device)] : chainOf(owner);
  if (await faultsSaid(() => api.keep(name, device?.type ?? null, devices), say)) await readPresets();
}

export async function removePreset(id: number): Promise<void> {
  if (await faultsSaid(() => api.remove(id))) await readPresets();
}

/** Uses a preset: on a device, or in the place of the whole chain. */
export const givePreset = (owner: Owner, deviceId: string | null, preset: PresetEntry) =>
  deviceId === null
    ? editAndTell("set_chain", { ...ownerInput(owner), devices: preset.devices, name: preset.name })
    : editAndTell("set_device", {
        ...ownerInput(owner),
        device_id: deviceId,
        values: preset.devices[0].values,
        ...(preset.devices[0].sound ? { sound: preset.devices[0].sound } : {}),
        ...(preset.devices[0].macros ? { macros: preset.devices[0].macros } : {}),
        name: preset.name,
      });
