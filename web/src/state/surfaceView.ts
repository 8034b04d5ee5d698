import { create } from "zustand";
import { HandsSocket, type Said, type SurfaceDeed, type SurfaceState } from "../api/handsSocket";

/** What a surface shows: the studio's state, as it was told, and what hands here hold. */
interface SurfaceView {
  open: boolean;
  studio: SurfaceState | null;
  held: Record<string, number>;
}

export const useSurfaceView = create<SurfaceView>(() => ({ open: false, studio: null, held: {} }));
const set = useSurfaceView.setState;
const now = useSurfaceView.getState;

let socket: HandsSocket | null = null;

export function openSurface(songId: number): () => void {
  socket = new HandsSocket(songId, "surface", heard, (open) => {
    set(open ? { open } : { open, studio: null, held: {} });
    if (open) socket?.say({ t: "ask" });
  });
  return () => socket?.close();
}

function heard(said: Said): void {
  if (said.t === "state") set({ studio: said });
  else if (said.t === "values") values(said);
  else if (said.t === "came" && said.role === "studio") socket?.say({ t: "ask" });
  else if (said.t === "gone" && said.role === "studio") {
    // Another studio of the song may still be there.
    set({ studio: null });
    socket?.say({ t: "ask" });
  }
}

function values({ position, v }: Extract<Said, { t: "values" }>): void {
  const { studio } = now();
  if (!studio) return;
  const fresh = <T extends { a: string; v: number; text: string } | null>(entry: T): T => {
    const told = entry && v[entry.a];
    return told ? { ...entry, v: told[0], text: told[1] || entry.text } : entry;
  };
  set({
    studio: {
      ...studio,
      position,
      eight: studio.eight.map(fresh),
      faders: studio.faders.map(fresh),
      pad: { x: fresh(studio.pad.x), y: fresh(studio.pad.y) },
    },
  });
}

/** How old an event is by now, in milliseconds. */
const ageOf = (stamp: number): number => Math.max(0, performance.now() - stamp);

/** A hand here takes hold of something, turns it, or lets go. */
export function hand(t: "touch" | "turn" | "release", a: string, v: number, stamp: number): void {
  const value = Math.min(Math.max(v, 0), 1);
  const { [a]: _, ...rest } = now().held;
  set({ held: t === "release" ? rest : { ...rest, [a]: value } });
  socket?.say({ t, a, v: value, age: ageOf(stamp) });
}

export const perform = (d: SurfaceDeed): void => socket?.say({ t: "deed", d });
export const choose = (what: { track?: string; arm?: string; page?: number }): void =>
  socket?.say({ t: "choose", ...what });
