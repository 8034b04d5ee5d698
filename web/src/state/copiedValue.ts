import { create } from "zustand";
import type { Normalised } from "../api/types";
import { findParameter, knobValue } from "./catalogue";
import { song } from "./song";

/** A value that was copied: of which parameter, as a share of its travel, and as people read it in its unit. */
interface CopiedValue {
  address: string;
  value: Normalised;
  text: string;
  unit: string;
}

const useCopied = create<{ value: CopiedValue | null }>(() => ({ value: null }));
export const copiedValue = (): CopiedValue | null => useCopied.getState().value;

/** Copies what a knob shows: what is heard of it at the playhead. */
export function copyValue(address: string): CopiedValue | null {
  const { catalogue, model, exact } = song();
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return null;
  const [value, text] = exact[address] ?? [knobValue(placed.owner, placed), ""];
  const copied = { address, value, text, unit: placed.scale.unit };
  useCopied.setState({ value: copied });
  return copied;
}

/** What pasting does to a parameter of a unit, in words. */
export function pasteWords(unit: string): string {
  const copied = copiedValue();
  if (!copied) return "What was copied at a knob";
  return copied.unit === unit ? copied.text : `The share of its travel that ${copied.text} is of its own`;
}
