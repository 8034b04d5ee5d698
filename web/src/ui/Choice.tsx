import { clsx } from "clsx";

interface SelectProps<K extends string> {
  label: string;
  value: K;
  choices: Record<K, string>;
  className?: string;
  onChoose: (value: K) => void;
}

/** One of several, by its words. */
export function Select<K extends string>({ label, value, choices, className, onChoose }: SelectProps<K>) {
  return (
    <select
      className={clsx("select select-sm pointer-coarse:h-11", className)}
      aria-label={label}
      title={label}
      value={value}
      onChange={(event) => onChoose(event.target.value as K)}
    >
      {Object.entries<string>(choices).map(([id, words]) => (
        <option key={id} value={id}>
          {words}
        </option>
      ))}
    </select>
  );
}

/** A word that is on or off. */
export function Switch({
  on,
  words,
  title,
  set,
}: {
  on: boolean;
  words: string;
  title: string;
  set: (on: boolean) => void;
}) {
  return (
    <button
      type="button"
      className={`btn btn-sm pointer-coarse:h-11 ${on ? "btn-secondary" : "btn-ghost"}`}
      aria-pressed={on}
      title={title}
      onClick={() => set(!on)}
    >
      {words}
    </button>
  );
}
