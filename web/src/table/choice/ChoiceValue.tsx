import type { EditInputs } from "../../api/types";
import { edit } from "../../state/edits";
import { useTried } from "../../state/useTried";
import { TextField } from "../../ui/Fields";

interface Props<K extends keyof EditInputs> {
  /** What it is the value of. */
  label: string;
  /** As the core says it; while a hand slides, as it says what is tried. */
  text: string;
  hint?: string;
  value: number;
  min: number;
  max: number;
  step: number;
  /** The edit that the slide makes, and its inputs. */
  change: K;
  inputs: (value: number) => EditInputs[K];
  /** Takes what was typed; answers with what is wrong with it. */
  onType: (text: string) => Promise<string | null>;
}

/** The value of what is chosen: typed in its unit, or slid. */
export function ChoiceValue<K extends keyof EditInputs>(props: Props<K>) {
  const { label, text, hint, value, min, max, step, change, inputs, onType } = props;
  const { wish, ask, keep } = useTried(change, value, inputs, (wished) => edit(change, inputs(wished)));
  return (
    <span className="choice-value">
      <TextField
        label={label}
        value={text}
        hint={hint}
        field="choice-value"
        onCommit={onType}
        className="input-ghost w-20 text-right font-semibold tabular-nums pointer-coarse:h-11"
      />
      <input
        type="range"
        className="range range-xs w-24 pointer-coarse:h-11"
        min={min}
        max={max}
        step={step}
        value={wish ?? value}
        aria-label={`${label}, by hand`}
        aria-valuetext={text}
        onChange={(event) => ask(Number(event.target.value))}
        onPointerUp={keep}
        onKeyUp={keep}
        onBlur={keep}
      />
    </span>
  );
}
