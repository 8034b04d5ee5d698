import { clsx } from "clsx";
import { type KeyboardEvent, useRef, useState } from "react";
import { TextField as Field, Input, Text } from "react-aria-components";
import { type FieldName, setWishes, wishesNow } from "../state/wishes";
import { useField } from "./useField";

export interface TextProps {
  label: string;
  value: string;
  className?: string;
  hint?: string;
  /** By which the keyboard is wished into it. */
  field?: FieldName;
  /** What the screen keyboard of a phone offers. */
  inputMode?: "text" | "decimal" | "numeric";
  /** Whether its name stands over it. */
  named?: boolean;
  /** The answer: null when all is well, else what was wrong with the text. */
  onCommit: (value: string) => unknown;
  /** The keyboard has gone elsewhere. */
  onLeave?: () => void;
}

/** What was wrong with a text that was given, until it is changed or taken. */
function useFault(onCommit: TextProps["onCommit"]) {
  const [fault, setFault] = useState<string | null>(null);
  const commit = async (text: string) => {
    const answer = await onCommit(text);
    setFault(typeof answer === "string" ? answer : null);
  };
  return { fault, commit, forget: () => setFault(null) };
}

/** A text that is kept at Enter or on leaving, and dropped at Escape. What is wrong with it is said right under it. */
export function TextField({ label, value, onCommit, onLeave, className, hint, field, inputMode, named }: TextProps) {
  const [draft, setDraft] = useState<string | null>(null);
  const { fault, commit, forget } = useFault(onCommit);
  const box = useRef<HTMLInputElement>(null);
  useField(field ?? null, box, setDraft);
  const keep = () => {
    const text = draft?.trim();
    setDraft(null);
    if (text && text !== value) void commit(text);
    else forget();
  };
  /** The keyboard goes back to where it was wished from, else it stays. */
  const leave = () => {
    const { back } = wishesNow();
    if (field && back) {
      setWishes({ back: null });
      back();
    } else box.current?.select();
  };
  const onKey = (event: KeyboardEvent) => {
    // With nothing typed, undo and redo mean the song.
    if (draft === null && (event.ctrlKey || event.metaKey)) return;
    event.stopPropagation();
    if (event.key === "Enter") {
      keep();
      leave();
    } else if (event.key === "Escape") {
      setDraft(null);
      forget();
      leave();
    }
  };
  return (
    <Field aria-label={label} value={draft ?? value} onChange={setDraft} isInvalid={fault !== null} className="field">
      {named && <span className="faint text-xs">{label}</span>}
      <Input
        ref={box}
        id={field}
        className={clsx("input input-sm min-w-0 px-1.5", className)}
        title={label}
        placeholder={hint}
        inputMode={inputMode}
        autoComplete="off"
        spellCheck={false}
        data-typed={draft !== null || undefined}
        onFocus={(event) => event.currentTarget.select()}
        onBlur={() => {
          keep();
          onLeave?.();
        }}
        onKeyDown={onKey}
      />
      {fault && (
        <Text slot="errorMessage" role="alert" className="field-fault">
          {fault}
        </Text>
      )}
    </Field>
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
  onCommit: (value: number) => unknown;
}

/** A number with its unit; what is no number in range is refused with a word under it. */
export function NumberField({ label, unit, value, min, max, onCommit, showLabel = true }: NumberProps) {
  const commit = (text: string) => {
    const number = Number(text.toLowerCase().replace(unit.toLowerCase(), "").trim());
    if (!(Number.isFinite(number) && number >= min && number <= max))
      return `${label} is a number from ${min} to ${max}.`;
    onCommit(number);
    return null;
  };
  return (
    <span className="flex items-center gap-1 text-xs">
      {showLabel && <span className="faint">{label.toLowerCase()}</span>}
      <TextField
        label={label}
        value={String(Math.round(value * 100) / 100)}
        onCommit={commit}
        inputMode="decimal"
        className="input-ghost w-14 text-right pointer-coarse:h-11"
      />
      <span className="faint">{unit}</span>
    </span>
  );
}
