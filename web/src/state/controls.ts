import { create } from "zustand";

/** What a MIDI controller of a file moves: its number, and a parameter of channel or instrument by its id. */
export type Controls = [number: number, parameter: string][];

/** As files are commonly written. */
export const USUAL: Controls = [
  [7, "volume"],
  [10, "pan"],
  [71, "resonance"],
  [72, "release"],
  [73, "attack"],
  [74, "cutoff"],
  [75, "decay"],
];

const KEPT = "kind-satchel-controllers";

function kept(): Controls {
  try {
    const list = JSON.parse(localStorage.getItem(KEPT) ?? "null");
    return Array.isArray(list) ? list : USUAL;
  } catch {
    return USUAL;
  }
}

/** The table that MIDI files are read with, kept in the browser; and whether its box is open. */
export const useControls = create<{ table: Controls; open: boolean }>(() => ({ table: kept(), open: false }));
export const showControls = (open = true): void => useControls.setState({ open });

export function setControls(table: Controls): void {
  const sorted = [...table].sort(([one], [other]) => one - other);
  useControls.setState({ table: sorted });
  localStorage.setItem(KEPT, JSON.stringify(sorted));
}

/** As a request writes it. */
export const controlsText = (): string =>
  useControls
    .getState()
    .table.map(([number, parameter]) => `${number}:${parameter}`)
    .join(",");
