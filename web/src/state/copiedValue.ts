import { create } from "zustand";
import type { Normalised } from "../api/types";
import { findParameter, knobValue } from "./catalogue";
import { song } from "./song";

/** A value that was copied: as a share of the travel, and as people read it in its unit. */
interface CopiedValue {
  value: Normalised;
  text: string;
  unit: string;
  /** By which the catalogue knows the scale it was read on. */
  scale: number;
}

const useCopied = create<{ value: CopiedValue | null }>(() => ({ value: null }));
export const copiedValue = (): CopiedValue | null => useCopied.getState().value;

/** Copies what a knob shows: what is heard of it at the playhead. */
export function copyValue(address: string): CopiedValue | null {
  const { catalogue, model, exact } = song();
  const placed = catalogue && findParameter(catalogue, model, address);
  if (!placed) return null;
  const [value, text] = exact[address] ?? [knobValue(placed.owner, placed), ""];
  const copied = { value, text, unit: placed.scale.unit, scale: placed.scale.index };
  useCopied.setState({ value: copied });
  return copied;
}

/** The copied value for another scale: the same where it is the same, in the same unit by value, else by share. */
export function valueFor({ index, unit }: { index: number; unit: string }): number | string | null {
  const copied = copiedValue();
  if (!copied) return null;
  if (copied.scale === index) return copied.value;
  return copied.unit === unit && copied.text ? copied.text : copied.value;
}

const percent = (value: Normalised): string => `${Number((value * 100).toFixed(2))} %`;

/** What pasting does to a parameter of a unit, in words. */
export function pasteWords(unit: string): string {
  const copied = copiedValue();
  if (!copied) return "What was copied at a knob";
  return copied.unit === unit ? copied.text : `${percent(copied.value)} of its travel, as ${copied.text} is of its own`;
}

/** The same as a text for points that set. */
export function textFor(unit: string): string | null {
  const copied = copiedValue();
  return copied && (copied.unit === unit && copied.text ? copied.text : percent(copied.value));
}
