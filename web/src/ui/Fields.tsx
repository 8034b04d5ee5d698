import { useField } from "./useField";
import { type FieldName } from "../state/wishes";
import { type KeyboardEvent, useRef, useState } from "react";

interface TextProps {
  label: string;
  value: string;
  className: string;
  hint?: string;
  /** By which the keyboard is wished into it. */
  field?: FieldName;
  onCommit: (value: string) => Promise<unknown>;
}

/** A text that is kept at Enter or on leaving, and dropped at Escape. A refused text goes back to what was. */
export function TextField({ label, value, onCommit, className, hint, field }: TextProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const box = useRef<HTMLInputElement>(null);
  useField(field ?? null, box);
  const keep = () => {
    if (draft !== null && draft.trim() !== "" && draft.trim() !== value) void onCommit(draft.trim());
    setDraft(null);
  };
  const onKey = (event: KeyboardEvent<HTMLInputElement>) => {
    event.stopPropagation();
    if (event.key === "Enter") event.currentTarget.blur();
    if (event.key === "Escape") setDraft(null);
  };
  return (
    <input
      className={`input input-sm input-ghost min-w-0 px-1.5 ${className}`}
      aria-label={label}
      title={label}
      placeholder={hint}
      ref={box}
      id={field}
      value={draft ?? value}
      onFocus={(event) => event.currentTarget.select()}
      onChange={(event) => setDraft(event.target.value)}
      onBlur={keep}
      onKeyDown={onKey}
    />
  );
}

interface NumberProps {
  label: string;
  unit: string;
  value: number;
  min: number;
  max: number;
  /** Whether its name stands before it. */
  showLabel?: boolean;
  onCommit: (value: number) => Promise<unknown>;
}

/** A number with its unit; what is no number in range is refused with a word beside it. */
export function NumberField({ label, unit, value, min, max, onCommit, showLabel = true }: NumberProps) {
  const [fault, setFault] = useState(false);
  const commit = async (text: string) => {
    const number = Number(text.toLowerCase().replace(unit.toLowerCase(), "").trim());
    const good = Number.isFinite(number) && number >= min && number <= max;
    setFault(!good);
    return good ? onCommit(number) : null;
  };
  return (
    <span className="relative flex items-center gap-1 text-[12px]">
      {showLabel && <span className="faint">{label.toLowerCase()}</span>}
      <TextField label={label} value={String(Math.round(value * 100) / 100)} onCommit={commit} className="w-14 text-right" />
      <span className="faint">{unit}</span>
      {fault && (
        <span role="alert" className="absolute top-8 left-0 z-50 rounded bg-error px-2 py-1 whitespace-nowrap text-error-content">
          {label} is a number from {min} to {max}
        </span>
      )}
    </span>
  );
}
