import { useState } from "react";
import { handingOver } from "../../api/handingOver";
import type { HandOverLoss } from "../../api/types";
import { useHandOver } from "../../state/handOver";
import { useSong } from "../../state/song";
import { TwoCurves } from "../TwoCurves";

/** What each parameter loses; a press shows what is heard before and after, one over the other. */
export function Losses() {
  const losses = useHandOver((state) => state.losses);
  const songId = useSong((state) => state.songId) as number;
  const limits = useHandOver((state) => state.choices.limits);
  const [open, setOpen] = useState<string | null>(null);
  if (!losses)
    return (
      <p className="faint text-xs" role="status">
        Working out what is lost …
      </p>
    );
  if (losses.length === 0) return <p className="faint text-xs">Nothing is moved, so nothing is lost.</p>;
  return (
    <ul className="flex flex-col gap-1 text-xs tabular-nums" aria-label="What is lost">
      {losses.map((loss) => (
        <li key={loss.address} className="rounded-field bg-base-200 px-2 py-1">
          <button
            type="button"
            className="flex w-full cursor-pointer flex-col text-left pointer-coarse:min-h-11"
            aria-expanded={open === loss.address}
            onClick={() => setOpen(open === loss.address ? null : loss.address)}
          >
            <span className="underline decoration-dotted">{loss.name}</span>
            <span className="faint">{cost(loss)}</span>
          </button>
          {open === loss.address && (
            <TwoCurves
              name={`${loss.name} as it is heard, and made to fit`}
              words="Broad as it is heard, thin made to fit."
              loss={loss}
              curves={() => handingOver(songId).curves(loss.address, limits ?? {})}
            />
          )}
        </li>
      ))}
    </ul>
  );
}

/** "267 points, at most 373 Hz off, 18.3 Hz on average". */
function cost({ points, largest, largest_text, mean_text, why, left_out }: HandOverLoss): string {
  if (left_out && why) return why;
  if (points === undefined) return "as it is";
  const off = largest === 0 ? "nothing is lost" : `at most ${largest_text} off, ${mean_text} on average`;
  return [points === 1 ? "a value" : `${points} points`, off, ...(why ? [why] : [])].join(", ");
}
