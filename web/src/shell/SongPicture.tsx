import type { ShelfEntry } from "../api/types";
import { hueStyle } from "../geometry/hue";

const CELL = 2;
const ROW = 4;
const WIDTH = 96;
const HEIGHT = 36;

/** Where the tracks of a song play, from the top down; nothing for a song that cannot be read. */
export function SongPicture({ rows = [] }: Pick<ShelfEntry, "rows">) {
  const room = Math.min(ROW, HEIGHT / Math.max(rows.length, 1));
  return (
    <svg width={WIDTH} height={HEIGHT} className="shrink-0 rounded-sm bg-base-200" aria-hidden="true">
      {rows.map(([hue, cells], i) => (
        <path
          key={i}
          style={{ ...hueStyle(hue as Parameters<typeof hueStyle>[0]), fill: "var(--hue)" }}
          d={runs(cells)
            .map(([from, to]) => `M${from * CELL} ${i * room}h${(to - from) * CELL}v${room - 1}h${(from - to) * CELL}z`)
            .join("")}
        />
      ))}
    </svg>
  );
}

/** Stretches of cells in which something plays: where each begins, and where it ends. */
function runs(cells: string): [number, number][] {
  return [...cells.matchAll(/1+/g)].map((match) => [match.index, match.index + match[0].length]);
}
