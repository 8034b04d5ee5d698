import type { EditInputs } from "../../../api/types";
import { edit } from "../../../state/edits";
import { useTried } from "../../../state/useTried";

export const percent = (value: number) => `${Math.round(value * 100)} %`;

type Set = "set_lfo" | "set_limits" | "follow_level";

interface Props<K extends Set> {
  name: string;
  /** The edit that sets it, and the inputs that a value makes. */
  change: K;
  inputs: (value: number) => EditInputs[K];
  value: number;
  min: number;
  max: number;
  step?: number;
  text: (value: number) => string;
  title?: string;
}

/** One setting of a move on a slider: tried while the hand moves, one step when it lets go. */
export function SettingSlider<K extends Set>(props: Props<K>) {
  const { name, change, inputs, value, min, max, step = 0.01, text, title } = props;
  const { wish, ask, keep } = useTried(change, value, inputs, (wished) => edit(change, inputs(wished)));
  const shown = wish ?? value;
  return (
    <label className="flex items-center gap-2 text-xs" title={title}>
      <span className="faint w-10 shrink-0">{name.toLowerCase()}</span>
      <input
        type="range"
        className="range range-xs min-w-0 grow pointer-coarse:h-11"
        min={min}
        max={max}
        step={step}
        value={shown}
        aria-label={name}
        aria-valuetext={text(shown)}
        onChange={(event) => ask(Number(event.target.value))}
        onPointerUp={keep}
        onKeyUp={keep}
        onBlur={keep}
      />
      <span className="w-12 shrink-0 text-right tabular-nums">{text(shown)}</span>
    </label>
  );
}
