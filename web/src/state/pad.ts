import { create } from "zustand";
import { song } from "./song";

/** What the pad turns across and up. */
interface Pad {
  x: string | null;
  y: string | null;
  songId: number | null;
}

export const usePad = create<Pad>(() => ({ x: null, y: null, songId: null }));

const keyOf = (songId: number) => `kind-satchel-pad:${songId}`;

export function readPad(songId: number): void {
  let kept: Partial<Pad> = {};
  try {
    kept = JSON.parse(localStorage.getItem(keyOf(songId)) ?? "{}");
  } catch {
    kept = {};
  }
  usePad.setState({ x: kept.x ?? null, y: kept.y ?? null, songId });
}

export function setPad(change: Partial<Pick<Pad, "x" | "y">>): void {
  usePad.setState(change);
  const { songId } = song();
  const { x, y } = usePad.getState();
  if (songId !== null) localStorage.setItem(keyOf(songId), JSON.stringify({ x, y }));
}
