import { useEffect, useRef, useState } from "react";
import type { EditInputs } from "../../api/types";
import { previewer, type Trial } from "../../state/previewer";
import { useSong } from "../../state/song";

/** From finest to coarsest, as shares of the travel. */
const [FINEST, COARSEST] = [0.0005, 0.1];
const placeOf = (tolerance: number) =>
  Math.min(Math.max(Math.log(tolerance / FINEST) / Math.log(COARSEST / FINEST), 0), 1);
const toleranceAt = (place: number) => FINEST * (COARSEST / FINEST) ** place;

interface Props {
  tolerance: number;
  inputs: EditInputs["rewrite_pass"];
  /** What it comes to as it stands, in words. */
  found: string;
  onCommit: (tolerance: number) => Promise<unknown>;
}

/** From fine to coarse: how many points that makes, and how close they are, is seen while the hand moves. */
export function Fineness({ tolerance, inputs, found, onCommit }: Props) {
  const trial = useRef<Trial | null>(null);
  const [place, setPlace] = useState<number | null>(null);
  const tried = useSong(({ preview }) => preview?.tells.find(({ code }) => code === "thinned")?.text ?? null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: what was wished for holds by now
  useEffect(() => setPlace(null), [tolerance]);
  const ask = (wish: number) => {
    setPlace(wish);
    trial.current ??= previewer();
    trial.current.ask("rewrite_pass", { ...inputs, tolerance: toleranceAt(wish) });
  };
  const keep = () => {
    if (!trial.current || place === null) return;
    trial.current.end(true);
    trial.current = null;
    void onCommit(toleranceAt(place)).then(() => setPlace(null));
  };
  return (
    <>
      <label className="flex items-center gap-2 text-xs">
        fine
        <input
          type="range"
          className="range range-xs grow pointer-coarse:h-11"
          min={0}
          max={1}
          step={0.01}
          value={place ?? placeOf(tolerance)}
          aria-label="How fine it is written"
          aria-valuetext={`within ${(toleranceAt(place ?? placeOf(tolerance)) * 100).toPrecision(2)} %`}
          onChange={(event) => ask(Number(event.target.value))}
          onPointerUp={keep}
          onKeyUp={keep}
          onBlur={keep}
        />
        coarse
      </label>
      <p className="faint text-xs" role="status" data-testid={`thinned-${inputs.address}`}>
        {(place !== null && tried) || found}
      </p>
    </>
  );
}
