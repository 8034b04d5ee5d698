import { useEffect, useState } from "react";
import { handingOver } from "../../api/handingOver";
import type { BakedCurves, HandOverLoss } from "../../api/types";
import { useHandOver } from "../../state/handOver";
import { faultsSaid } from "../../state/queue";
import { useSong } from "../../state/song";
import { showTime } from "../../table/scrolling";

/** What each parameter loses; a press shows what is heard before and after, one over the other. */
export function Losses() {
  const losses = useHandOver((state) => state.losses);
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
          {open === loss.address && <Both loss={loss} />}
        </li>
      ))}
    </ul>
  );
}

/** "267 points, at most 373 Hz off, 18.3 Hz on average". */
function cost({ points, largest, largest_text, mean_text, why }: HandOverLoss): string {
  if (points === undefined) return "as it is";
  const off = largest === 0 ? "nothing is lost" : `at most ${largest_text} off, ${mean_text} on average`;
  return [points === 1 ? "a value" : `${points} points`, off, ...(why ? [why] : [])].join(", ");
}

const [WIDTH, HEIGHT] = [280, 60];

/** Both curves of one parameter, and the place where they are furthest apart. */
function Both({ loss }: { loss: HandOverLoss }) {
  const songId = useSong((state) => state.songId) as number;
  const limits = useHandOver((state) => state.choices.limits);
  const [curves, setCurves] = useState<BakedCurves | null>(null);
  useEffect(() => {
    let over = false;
    void faultsSaid(() => handingOver(songId).curves(loss.address, limits ?? {})).then((found) => {
      if (!over) setCurves(found ?? null);
    });
    return () => {
      over = true;
    };
  }, [songId, loss.address, limits]);
  if (!curves) return <p className="faint">Drawing …</p>;
  const end = Math.max(1, curves.before[curves.before.length - 2]);
  const path = (flat: number[]) => {
    const places: string[] = [];
    for (let i = 0; i < flat.length; i += 2)
      places.push(`${((flat[i] / end) * WIDTH).toFixed(1)},${((1 - flat[i + 1]) * HEIGHT).toFixed(1)}`);
    return places.join(" ");
  };
  const x = (loss.tick / end) * WIDTH;
  return (
    <figure className="flex flex-col gap-1">
      <svg
        viewBox={`0 -2 ${WIDTH} ${HEIGHT + 4}`}
        className="w-full rounded-field bg-base-200"
        role="img"
        aria-label={`${loss.name} as it is heard, and made to fit`}
      >
        <line x1={x} x2={x} y1={0} y2={HEIGHT} stroke="currentColor" strokeDasharray="2 3" opacity={0.5} />
        <polyline points={path(curves.before)} fill="none" stroke="currentColor" strokeWidth={3} opacity={0.25} />
        <polyline points={path(curves.after)} fill="none" stroke="currentColor" strokeWidth={1} />
      </svg>
      <figcaption className="faint">
        Broad as it is heard, thin made to fit.{" "}
        <button
          type="button"
          className="cursor-pointer underline decoration-dotted"
          onClick={() => showTime(loss.tick, loss.tick)}
        >
          Furthest apart at {loss.position}
        </button>
      </figcaption>
    </figure>
  );
}
