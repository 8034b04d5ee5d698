import { create } from "zustand";

/** A device that turns knobs of this studio. */
export interface Surface {
  id: string;
  name: string;
  away?: boolean;
}

interface Stage {
  /** Whether the way to surfaces is open. */
  open: boolean;
  there: Surface[];
  /** Whether the box that invites one is open. */
  box: boolean;
}

export const useSurfaces = create<Stage>(() => ({ open: false, there: [], box: false }));
export const surfacesNow = useSurfaces.getState;
export const setStage = useSurfaces.setState;

const KEPT = "kind-satchel-surfaces";

/** Whether this studio waits for surfaces as soon as a song is opened. */
export const waitsForSurfaces = (): boolean => localStorage.getItem(KEPT) === "on";
export const waitForSurfaces = (): void => localStorage.setItem(KEPT, "on");
