import type { ReactNode } from "react";
import type { EditInputs, Ticks } from "../api/types";
import { positionText } from "../geometry/viewport";
import { edit } from "../state/edits";
import { tickOf } from "../state/questions";
import { useSong } from "../state/song";
import type { FieldName } from "../state/wishes";
import { TextField } from "./Fields";

const BOXED = "w-full border-base-300 bg-base-200 pointer-coarse:h-11";

interface TypedProps<K extends keyof EditInputs> {
  label: string;
  value?: string;
  hint?: string;
  field?: FieldName;
  name: K;
  inputs: (text: string) => EditInputs[K];
}

/** What an edit or a question says against a text; null when it went well. */
async function faultOf(ask: (say: (fault: string) => void) => unknown): Promise<string | null> {
  let found: string | null = null;
  await ask((fault) => {
    found = fault;
  });
  return found;
}

/** A text that becomes an edit at Enter; what is wrong with it is said right under it, and nothing changes. */
export function Typed<K extends keyof EditInputs>({ label, value = "", hint, field, name, inputs }: TypedProps<K>) {
  const commit = (text: string) => faultOf((say) => edit(name, inputs(text), say));
  return <TextField named label={label} value={value} hint={hint} field={field} onCommit={commit} className={BOXED} />;
}

interface PositionProps {
  label: string;
  /** The position that stands there, null for none. */
  tick: Ticks | null;
  onTick: (tick: Ticks, say: (fault: string) => void) => unknown;
}

/** A position as people write it; what is wrong with it is said right under it. */
export function PositionField({ label, tick, onTick }: PositionProps) {
  const meters = useSong((state) => state.model.head.meters);
  const commit = (text: string) =>
    faultOf(async (say) => {
      const found = await tickOf(text, say);
      if (found !== null) await onTick(found, say);
    });
  const value = tick === null ? "" : positionText(meters, tick);
  return <TextField named label={label} value={value} hint="bar.beat.tick" onCommit={commit} className={BOXED} />;
}

interface DoProps {
  words: string;
  title?: string;
  onDo: () => void;
  off?: boolean;
  /** For one that is switched: whether it is on. */
  on?: boolean;
}

/** A button of the panel. */
export function Do({ words, title, onDo, off = false, on }: DoProps) {
  return (
    <button
      type="button"
      className={`btn btn-xs h-7 grow font-medium pointer-coarse:h-11 ${on ? "btn-secondary" : ""}`}
      aria-pressed={on}
      disabled={off}
      title={title}
      onClick={onDo}
    >
      {words}
    </button>
  );
}

export function Row({ title, children }: { title: string; children: ReactNode }) {
  return (
    <fieldset className="flex flex-wrap items-end gap-1">
      <legend className="faint mb-0.5 text-xs">{title}</legend>
      {children}
    </fieldset>
  );
}
