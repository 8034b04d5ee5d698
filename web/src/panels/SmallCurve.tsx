import { useMemo } from "react";
import type { Corners, Ticks } from "../api/types";
import { windowPath } from "../geometry/corners";

interface Props {
  corners: Corners;
  /** The stretch that is drawn: ticks of the curve. */
  from: Ticks;
  to: Ticks;
  width: number;
  height: number;
  /** What is heard is a band with an edge; a move is the line of its kind. */
  look: "heard" | "stitched" | "lane";
  off?: boolean;
  testId?: string;
}

const LINES = { heard: "heard-edge-small", stitched: "stitched-small", lane: "lane-small" };

/** A curve at the size of a line of text. */
export function SmallCurve({ corners, from, to, width, height, look, off = false, testId }: Props) {
  const path = useMemo(
    () =>
      corners.length < 4 || to <= from
        ? ""
        : windowPath(corners, [from, to, from, 1], (tick, value) => [
            ((tick - from) / (to - from)) * width,
            1 + (1 - value) * (height - 2),
          ]),
    [corners, from, to, width, height],
  );
  return (
    <svg width={width} height={height} className="small-curve" aria-hidden="true" data-testid={testId}>
      {path && look === "heard" && <path d={`${path}V${height}H0Z`} className="heard-band" />}
      {path && <path d={path} className={off ? "off-small" : LINES[look]} />}
    </svg>
  );
}
