import { create } from "zustand";
import { sounds as api } from "../api/client";
import type { SoundEntry } from "../api/types";
import { chainId, type Owner, ownerInput } from "./catalogue";
import { editAndTell } from "./edits";
import { faultsSaid, type Say } from "./queue";
import { sendingShown } from "./sending";

/** The recorded sounds of the store, the same for all songs; null until they were asked for. */
interface SoundList {
  list: SoundEntry[] | null;
  /** Whether they are being looked through; for a sampler, by its chain and id; to be placed. */
  open: { chain: string; deviceId: string } | "all" | "place" | null;
}

export const useSoundList = create<SoundList>(() => ({ list: null, open: null }));

export async function readSounds(): Promise<void> {
  const list = await faultsSaid(() => api.list());
  if (list) useSoundList.setState({ list });
}

/** Looks through the sounds: for a sampler, to choose one; or just to see what there is. */
export function showSounds(owner?: Owner, deviceId?: string): void {
  useSoundList.setState({ open: owner && deviceId ? { chain: chainId(owner), deviceId } : "all" });
  void readSounds();
}

/** Looks through the sounds for one to place in the song. */
export function showPlacing(): void {
  useSoundList.setState({ open: "place" });
  void readSounds();
}

export const closeSounds = (): void => useSoundList.setState({ open: null });

/** Takes a WAV file in under its own name. */
export async function addSound(file: File, say: Say): Promise<SoundEntry | null> {
  const name = file.name.replace(/\.wave?$/i, "");
  const made = await faultsSaid(() => sendingShown(name, (told, stop) => api.add(name, file, told, stop)), say);
  if (made) await readSounds();
  return made;
}

/** Lets go of a sound that nothing uses. */
export async function removeSound(sound: SoundEntry, say: Say): Promise<void> {
  if (await faultsSaid(() => api.remove(sound.digest), say)) await readSounds();
}

/** Lets go of all that nothing uses; says what stays for an undo. */
export async function freeSounds(count: number, say: Say): Promise<void> {
  const done = await faultsSaid(() => api.free(), say);
  if (!done) return;
  if (done.freed < count) say(`${count - done.freed} would come back with undo in a song, and stay.`);
  await readSounds();
}

export const giveSound = (owner: Owner, deviceId: string, { id, name }: SoundEntry) =>
  editAndTell("set_sound", { ...ownerInput(owner), device_id: deviceId, sound: id, name });
