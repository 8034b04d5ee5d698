import type { EditInputs } from "../../api/types";
import { useSong } from "../../state/song";
import { useTried } from "../../state/useTried";

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
  const tried = useSong(({ preview }) => preview?.notices.find(({ code }) => code === "thinned")?.text ?? null);
  const { wish, ask, keep } = useTried(
    "rewrite_pass",
    tolerance,
    (place) => ({ ...inputs, tolerance: toleranceAt(place) }),
    (place) => onCommit(toleranceAt(place)),
  );
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
          value={wish ?? placeOf(tolerance)}
          aria-label="How fine it is written"
          aria-valuetext={`within ${(toleranceAt(wish ?? placeOf(tolerance)) * 100).toPrecision(2)} %`}
          onChange={(event) => ask(Number(event.target.value))}
          onPointerUp={keep}
          onKeyUp={keep}
          onBlur={keep}
        />
        coarse
      </label>
      <p className="faint text-xs" role="status" data-testid={`thinned-${inputs.address}`}>
        {(wish !== null && tried) || found}
      </p>
    </>
  );
}
