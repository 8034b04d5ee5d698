import type { Catalogue, EnvelopePart, Normalised, Px, ScaleEntry, Ticks } from "../../api/types";
import { scaled } from "../../geometry/text";
import { bandFor, linesIn, tickToX, valueToY } from "../../geometry/viewport";
import { useSong } from "../../state/song";
import { useGrid } from "../../state/useGrid";
import { useView } from "../../state/view";

const NEAREST: Px = scaled(13);

/** Values worth a line on the axis of an envelope, in the unit of its role. */
export function marksOf(
  scale: ScaleEntry,
  role: EnvelopePart["role"],
  amounts: Catalogue["amount_marks"] | undefined,
): [Normalised, string][] {
  if (role === "set" || !amounts) return scale.marks;
  if (role === "scale") return amounts.scale;
  return scale.gain ? amounts.shift_gain : amounts.shift;
}

/** The value axis of a strip: lines across, and their values in the gutter beside them. Lines too near are left out. */
export function Axis({
  scale,
  kind,
  height,
  width,
  clear = 0,
}: {
  scale: ScaleEntry;
  kind: EnvelopePart["role"];
  height: Px;
  width: Px;
  /** No value is written nearer to the top than this, where the name of the track stands. */
  clear?: Px;
}) {
  const amounts = useSong((state) => state.catalogue?.amount_marks);
  const band = bandFor(kind, height);
  let last = Number.POSITIVE_INFINITY;
  const marks = marksOf(scale, kind, amounts)
    .map(([value, text]) => ({ y: valueToY(band, value), text, middle: value === scale.origin && scale.origin > 0 }))
    .filter(({ y }) => {
      const room = last - y >= NEAREST;
      if (room) last = y;
      return room;
    });
  return (
    <>
      <svg className="pointer-events-none absolute inset-0" width={width} height={height} aria-hidden="true">
        {marks.map(({ y, middle }) => (
          <path key={y} d={`M0 ${y.toFixed(1)}H${width}`} className="axis-line" strokeWidth={middle ? 2 : 1} />
        ))}
      </svg>
      <div className="axis-gutter" aria-hidden="true">
        {marks
          .filter(({ y }) => y >= clear)
          .map(({ y, text }) => (
            <span
              key={y}
              className="faint absolute right-1.5 text-xs leading-none whitespace-nowrap"
              style={{ top: Math.min(Math.max(y - scaled(6), 1), height - scaled(13)) }}
            >
              {text}
            </span>
          ))}
      </div>
    </>
  );
}

/** Lines of the beats and of the grid, where they stand far enough apart. */
export function TimeLines({ view: [from, to], height }: { view: [Ticks, Ticks]; height: Px }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const meters = useSong((state) => state.model.head.meters);
  const grid = useGrid();
  const apart = (step: Ticks) => step > 0 && step * pxPerTick >= 7;
  if (!apart(grid) && !meters.some(({ beat_ticks }) => apart(beat_ticks))) return null;
  const lines = linesIn(meters, from, to, ({ beat_ticks }) => (apart(grid) ? grid : beat_ticks)).slice(0, 1200);
  const paths = (beats: boolean) =>
    lines
      .filter(([tick, meter]) => ((tick - meter.tick) % meter.beat_ticks === 0) === beats)
      .map(([tick]) => `M${tickToX({ pxPerTick }, tick).toFixed(1)} 0V${height}`)
      .join("");
  return (
    <svg className="pointer-events-none absolute inset-0 w-full" height={height} aria-hidden="true">
      <path d={paths(false)} className="axis-line" style={{ opacity: 0.35 }} />
      <path d={paths(true)} className="axis-line" />
    </svg>
  );
}
