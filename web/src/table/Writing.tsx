import type { Px } from "../api/types";
import { FOLDED_HEIGHT } from "../geometry/heights";
import { bandFor, tickToX, valueToY } from "../geometry/viewport";
import { trackOf } from "../state/catalogue";
import { type Line, usePerforming } from "../state/performing";
import { song } from "../state/song";
import { useView } from "../state/view";

/** So many places of one touch are drawn; of more, every other one and so on. */
const MOST_PLACES = 1500;
/** Samples nearer to each other than this are drawn as one. */
const APART: Px = 3;

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
  const band = bandFor("set", height);
  const plot = (line: Line) => {
    const every = Math.ceil(line.ticks.length / MOST_PLACES);
    return line.ticks.flatMap((tick, i): [Px, Px][] =>
      i % every === 0 || i === line.ticks.length - 1
        ? [[tickToX({ pxPerTick }, tick), valueToY(band, line.values[i])]]
        : [],
    );
  };
  return (
    <svg className="writing" height={height} aria-hidden="true" data-testid="writing">
      {drawn.map((line, i) => {
        const places = plot(line);
        return (
          <g key={`${i} ${line.ticks[0]}`}>
            <path
              d={`M${places.map(([x, y]) => `${x.toFixed(1)} ${y.toFixed(1)}`).join("L")}`}
              className="writing-line"
            />
            <path d={samples(places)} className="writing-samples" />
          </g>
        );
      })}
    </svg>
  );
}

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
