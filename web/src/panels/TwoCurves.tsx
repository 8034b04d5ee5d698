import { useEffect, useState } from "react";
import type { BakedCurves, HandOverLoss } from "../api/types";
import { faultsSaid } from "../state/queue";
import { showTime } from "../state/scrolling";

const [WIDTH, HEIGHT] = [280, 60];

interface Props {
  name: string;
  /** Which of the two lines is which. */
  words: string;
  loss: Pick<HandOverLoss, "address" | "tick" | "position">;
  curves: () => Promise<BakedCurves>;
}

/** Two courses of one parameter, one over the other, and the place where they are furthest apart. */
export function TwoCurves({ name, words, loss, curves }: Props) {
  const [found, setFound] = useState<BakedCurves | null>(null);
  // biome-ignore lint/correctness/useExhaustiveDependencies: asked once for a parameter
  useEffect(() => {
    let over = false;
    void faultsSaid(curves).then((answer) => {
      if (!over) setFound(answer ?? null);
    });
    return () => {
      over = true;
    };
  }, [loss.address]);
  if (!found) return <p className="faint">Drawing …</p>;
  const end = Math.max(1, found.before[found.before.length - 2]);
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
        aria-label={name}
      >
        <line x1={x} x2={x} y1={0} y2={HEIGHT} stroke="currentColor" strokeDasharray="2 3" opacity={0.5} />
        <polyline points={path(found.before)} fill="none" stroke="currentColor" strokeWidth={3} opacity={0.25} />
        <polyline points={path(found.after)} fill="none" stroke="currentColor" strokeWidth={1} />
      </svg>
      <figcaption className="faint">
        {words}{" "}
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
