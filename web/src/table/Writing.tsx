import { memo } from "react";
import type { Px } from "../api/types";
import { FOLDED_HEIGHT } from "../geometry/heights";
import { bandFor, tickToX, valueToY } from "../geometry/viewport";
import { trackOf } from "../state/catalogue";
import { type Line, usePerforming } from "../state/performing";
import { song } from "../state/song";
import { useView } from "../state/view";

/** A line is drawn in pieces of so many samples, so that only the last one is drawn again. */
const PIECE = 48;
/** Samples nearer to each other than this are drawn as one. */
const APART: Px = 3;

/** Room beside the line; and the steps in which its layer grows. */
const MARGIN: Px = 4;
const WIDER: Px = 128;

interface Props {
  addresses: string[];
  height: Px;
}

/** What hands are writing, as the line is made, with its samples; over the strip it will stand in. */
export function Writing({ addresses, height }: Props) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const lines = usePerforming((state) => state.lines);
  const drawn = addresses.flatMap((address) => lines[address] ?? []);
  if (drawn.length === 0) return null;
  const from = Math.floor(tickToX({ pxPerTick }, Math.min(...drawn.map(({ ticks }) => ticks[0])))) - MARGIN;
  const ends = drawn.map(({ ticks, end }) => end ?? ticks[ticks.length - 1]);
  const width = Math.ceil((tickToX({ pxPerTick }, Math.max(...ends)) - from + MARGIN) / WIDER) * WIDER;
  return (
    <svg
      className="writing"
      style={{ left: from }}
      width={width}
      height={height}
      viewBox={`${from} 0 ${width} ${height}`}
      aria-hidden="true"
      data-testid="writing"
    >
      {drawn.flatMap((line) =>
        Array.from({ length: Math.ceil(line.ticks.length / PIECE) }, (_, i) => {
          const to = Math.min((i + 1) * PIECE + 1, line.ticks.length);
          const last = to === line.ticks.length;
          return (
            <Piece
              key={`${line.ticks[0]} ${i}`}
              ticks={line.ticks}
              values={line.values}
              from={i * PIECE}
              to={to}
              end={last ? (line.end ?? null) : null}
              pxPerTick={pxPerTick}
              height={height}
            />
          );
        }),
      )}
    </svg>
  );
}

interface PieceProps extends Omit<Line, "end"> {
  from: number;
  to: number;
  end: number | null;
  pxPerTick: number;
  height: Px;
}

/** A piece of a line. Lines only grow, so one with the same ends is the same. */
const Piece = memo(function Piece({ ticks, values, from, to, end, pxPerTick, height }: PieceProps) {
  const band = bandFor("set", height);
  const places: [Px, Px][] = [];
  for (let i = from; i < to; i++) places.push([tickToX({ pxPerTick }, ticks[i]), valueToY(band, values[i])]);
  if (end !== null) places.push([tickToX({ pxPerTick }, end), valueToY(band, values[to - 1])]);
  return (
    <>
      <path d={`M${places.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}`} className="writing-line" />
      <path d={samples(places)} className="writing-samples" />
    </>
  );
});

/** The same in a folded row, for all that is written on its track. */
export function WritingRow({ trackId }: { trackId: string }) {
  const names = usePerforming(({ lines }) =>
    Object.keys(lines)
      .filter((address) => trackOf(song().model, address) === trackId)
      .join(","),
  );
  return names ? <Writing addresses={names.split(",")} height={FOLDED_HEIGHT - 1} /> : null;
}

/** A short stroke at each sample. */
function samples(places: [Px, Px][]): string {
  let last = Number.NEGATIVE_INFINITY;
  return places
    .flatMap(([x, y]) => {
      if (x - last < APART) return [];
      last = x;
      return [`M${x.toFixed(1)} ${(y - 3).toFixed(1)}v6`];
    })
    .join("");
}
