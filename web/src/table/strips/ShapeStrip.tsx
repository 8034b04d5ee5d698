import type { EnvelopePart, Px, Window } from "../../api/types";
import { tickToX } from "../../geometry/viewport";
import { shapeOf } from "../../gestures/bends";
import { useChoice } from "../../state/choice";
import { runsOf } from "../../state/choosing";
import { edit } from "../../state/edits";
import { useHand } from "../../state/hand";
import { roomForSong, tableBox } from "../../state/stage";
import { setView, useView } from "../../state/view";
import { made, nameOf, SHAPES, ShapeIcon, type ShapeName } from "../../ui/shapes";

const NONE: number[] = [];
/** About as wide as the strip gets. */
const WIDTH: Px = 300;

/** Moved to the left where the view ends, and no wider than it, so that all of it can be reached. */
function inView(left: Px): { left: Px; maxWidth?: Px } {
  const table = tableBox();
  if (!table) return { left };
  const room = roomForSong();
  return { left: Math.max(table.scrollLeft, Math.min(left, table.scrollLeft + room - WIDTH)), maxWidth: room };
}

/** Beside the chosen points: shapes for the segments that leave them, at one press. */
export function ShapeStrip({ envelope, windows, top }: { envelope: EnvelopePart; windows: Window[]; top: Px }) {
  const busy = useHand((state) => state.hand !== null);
  const chosen = useChoice((state) => (state.envelopeId === envelope.id && !busy ? state.chosen : NONE));
  const from = useChoice((state) => state.windowFrom);
  const pxPerTick = useView((state) => state.pxPerTick);
  const window = windows.find((entry) => entry[0] === from);
  const leaving = chosen.filter((index) => index + 1 < envelope.points.length);
  const first = envelope.points[leaving[0]];
  if (!first || !window) return null;
  const x = tickToX({ pxPerTick }, window[0] + (first.tick - window[2]) / window[3]);
  const names = new Set(leaving.map((index) => nameOf(envelope.points[index])));
  const shape = (name: ShapeName) =>
    void edit("shape_segments", { envelope_id: envelope.id, runs: runsOf(leaving), shape: made(name, shapeOf(first)) });
  return (
    <div
      className="absolute z-[15] flex flex-wrap rounded-field border border-base-300 bg-base-100 shadow-md"
      style={{ top, ...inView(x - 8) }}
      role="group"
      aria-label="Shape of the segments after the chosen points"
    >
      {(Object.keys(SHAPES) as ShapeName[]).map((name) => (
        <button
          key={name}
          type="button"
          className={`grid h-7 w-7 cursor-pointer place-content-center rounded-field hover:bg-base-300 pointer-coarse:h-10 pointer-coarse:w-8 ${names.size === 1 && names.has(name) ? "hue bg-base-200" : ""}`}
          aria-label={name}
          aria-pressed={names.size === 1 && names.has(name)}
          title={name}
          onClick={() => shape(name)}
        >
          <ShapeIcon name={name} />
        </button>
      ))}
      <button
        type="button"
        className="px-1.5 text-xs hover:underline"
        onClick={() => setView({ sheet: "edit" })}
        title="Everything else that can be done with the chosen points"
      >
        more
      </button>
    </div>
  );
}
