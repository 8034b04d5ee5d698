import { useRef } from "react";
import type { EditInputs } from "../../api/types";
import { previewer, type Trial } from "../../state/previewer";
import { useSong } from "../../state/song";

/** From finest to coarsest, as shares of the travel. */
const [FINEST, COARSEST] = [0.0005, 0.1];
const placeOf = (tolerance: number) => Math.log(tolerance / FINEST) / Math.log(COARSEST / FINEST);
const toleranceAt = (place: number) => FINEST * (COARSEST / FINEST) ** place;

interface Props {
  tolerance: number;
  inputs: EditInputs["rewrite_pass"];
  /** How many points that would be, and how close, in words; null when nothing is tried. */
  onTold: (words: string | null) => void;
  onCommit: (tolerance: number) => void;
}

/** From fine to coarse: what it comes to is drawn while the hand moves. */
export function Fineness({ tolerance, inputs, onTold, onCommit }: Props) {
  const trial = useRef<Trial | null>(null);
  const words = useSong(({ preview }) => preview?.tells.find(({ code }) => code === "thinned")?.text ?? null);
  const told = trial.current ? words : null;
  const field = useRef<HTMLInputElement>(null);
  if (told) queueMicrotask(() => onTold(told));
  const wish = () => toleranceAt(Number(field.current?.value ?? placeOf(tolerance)));
  const ask = () => {
    trial.current ??= previewer();
    trial.current.ask("rewrite_pass", { ...inputs, tolerance: wish() });
  };
  const keep = () => {
    if (!trial.current) return;
    trial.current.end(true);
    trial.current = null;
    onCommit(wish());
  };
  return (
    <label className="flex items-center gap-2 text-xs">
      fine
      <input
        ref={field}
        key={tolerance}
        type="range"
        className="range range-xs grow pointer-coarse:h-11"
        min={0}
        max={1}
        step={0.01}
        defaultValue={placeOf(Math.min(Math.max(tolerance, FINEST), COARSEST))}
        aria-label="How fine it is written"
        onInput={ask}
        onPointerUp={keep}
        onKeyUp={keep}
        onBlur={keep}
      />
      coarse
    </label>
  );
}
