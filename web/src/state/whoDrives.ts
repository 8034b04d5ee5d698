import { create } from "zustand";

/** What drives whatever is touched next: a macro, or a move that is to move another knob too; null for neither. */
interface Driving {
  macro: string | null;
  envelopeId: string | null;
}

export const NOBODY: Driving = { macro: null, envelopeId: null };
export const useDriving = create<Driving>(() => NOBODY);
export const whoDrives = useDriving.getState;
export const isDriving = (): boolean => whoDrives().macro !== null || whoDrives().envelopeId !== null;
