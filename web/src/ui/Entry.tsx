import { type FieldName } from "../state/wishes";
import { useState } from "react";
import type { EditInputs, Ticks } from "../api/types";
import { edit } from "../state/edits";
import { tickOf } from "../state/questions";
import { useSong } from "../state/song";
import { positionText } from "../geometry/viewport";
import { TextField } from "./Fields";

interface TypedProps<K extends keyof EditInputs> {
  label: string;
  value?: string;
  hint?: string;
  field?: FieldName;
  name: K;
  inputs: (text: string) => EditInputs[K];
}

/** A text that becomes an edit at Enter; what is wrong with it is said right under it, and nothing changes. */
export function Typed<K extends keyof EditInputs>({ label, value = "", hint, field, name, inputs }: TypedProps<K>) {
  const [fault, setFault] = useState<string | null>(null);
  const commit = (text: string) => {
    setFault(null);
    return edit(name, inputs(text), setFault);
  };
  return (
    <label className="flex min-w-0 flex-col text-[11.5px]">
      <span className="faint">{label}</span>
      <TextField label={label} value={value} hint={hint} field={field} onCommit={commit} className="w-full border-base-300 bg-base-200 pointer-coarse:h-11" />
      <Fault words={fault} />
    </label>
  );
}

interface PositionProps {
  label: string;
  /** The position that stands there, null for none. */
  tick: Ticks | null;
  onTick: (tick: Ticks, say: (fault: string) => void) => unknown;
}

/** A position as people write it; what is wrong with it is said right under it. */
export function PositionField({ label, tick, onTick }: PositionProps) {
  const meter = useSong((state) => state.model.head.meter);
  const [fault, setFault] = useState<string | null>(null);
  const commit = async (text: string) => {
    setFault(null);
    const found = await tickOf(text, setFault);
    if (found !== null) onTick(found, setFault);
  };
  return (
    <label className="flex min-w-0 flex-col text-[11.5px]">
      <span className="faint">{label}</span>
      <TextField label={label} value={tick === null ? "" : positionText(meter, tick)} hint="bar.beat.tick" onCommit={commit} className="w-full border-base-300 bg-base-200 pointer-coarse:h-11" />
      <Fault words={fault} />
    </label>
  );
}

const Fault = ({ words }: { words: string | null }) =>
  words && (
    <span role="alert" className="mt-0.5 rounded bg-error px-1.5 py-0.5 text-error-content">
      {words}
    </span>
  );

/** A button of the panel. */
export function Do({ words, title, onDo, off = false }: { words: string; title?: string; onDo: () => void; off?: boolean }) {
  return (
    <button type="button" className="btn btn-xs grow border-base-300 font-medium pointer-coarse:h-11" disabled={off} title={title} onClick={onDo}>
      {words}
    </button>
  );
}

export function Row({ title, children }: { title: string; children: React.ReactNode }) {
  return (
    <fieldset className="flex flex-wrap items-end gap-1">
      <legend className="faint mb-0.5 text-[11.5px]">{title}</legend>
      {children}
    </fieldset>
  );
}
