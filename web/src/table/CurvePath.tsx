import { useMemo } from "react";
import type { Corners, CurvePatch, Normalised, Px, Ticks, Window } from "../api/types";
import { cornerBefore, windowPath } from "../geometry/corners";

/** Longer curves are drawn in pieces of so many corners, so that a drag draws only the piece under the hand anew. */
const PIECE = 300;

interface Props {
  /** The curve as it stands, and as it is being tried. */
  still: Corners;
  tried: Corners | undefined;
  /** Where the two differ; none when all of it may. */
  patches: CurvePatch[] | undefined;
  window: Window;
  plot: (tick: Ticks, value: Normalised) => [Px, Px];
  /** What the plot depends on. */
  scale: string;
  className: string;
  /** With a foot the curve is an area down to it. */
  foot?: Px;
  testId?: string;
}

/** A window of a curve. */
export function CurvePath({ still, tried, patches, window, plot, scale, className, foot, testId }: Props) {
  const path = (corners: Corners, piece: Window): string => {
    const line = windowPath(corners, piece, plot);
    return line && foot !== undefined ? `${line}V${foot}H${plot(piece[0], 0)[0].toFixed(1)}Z` : line;
  };
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  const pieces = useMemo(() => piecesOf(still, window), [still, ...window]);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  const base = useMemo(() => pieces.map((piece) => path(still, piece)), [pieces, still, scale, foot]);
  const differs = ([from, to, position, rate]: Window) =>
    !patches || patches.some(([start, end]) => start <= position + (to - from) * rate && end >= position);
  return pieces.map((piece, i) => (
    <path
      key={piece[0]}
      d={tried && differs(piece) ? path(tried, piece) : base[i]}
      className={className}
      pointerEvents="none"
      data-testid={testId}
    />
  ));
}

/** A window cut at every so many corners of the curve. */
function piecesOf(corners: Corners, [from, to, position, rate]: Window): Window[] {
  const first = Math.max(cornerBefore(corners, position), 0);
  const last = cornerBefore(corners, position + (to - from) * rate);
  const pieces: Window[] = [];
  let [start, at] = [from, position];
  for (let i = first + PIECE; i < last; i += PIECE) {
    const tick = corners[i * 2];
    const cut = from + (tick - position) / rate;
    if (cut <= start) continue;
    pieces.push([start, cut, at, rate]);
    [start, at] = [cut, tick];
  }
  return [...pieces, [start, to, at, rate]];
}
