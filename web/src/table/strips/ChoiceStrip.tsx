import type { Corners, EnvelopePart, Px, Window } from "../../api/types";
import { leavingOf } from "../../commands/points";
import { rangeOf } from "../../geometry/corners";
import { bandFor, tickToX, valueToY, xToTick } from "../../geometry/viewport";
import { useChoice } from "../../state/choice";
import { useHand } from "../../state/hand";
import { useSong } from "../../state/song";
import { roomForSong, tableBox } from "../../state/stage";
import { setView, useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { ShapeDeeds } from "./ShapeDeeds";
import { SpanDeeds } from "./SpanDeeds";

const NONE: number[] = [];
const NO_CORNERS: Corners = [];
/** About as large as the strip gets. */
const WIDTH: Px = 306;
const HEIGHT: Px = 30;
/** Between the strip and what it stands beside. */
const APART: Px = 14;

interface Props {
  envelope: EnvelopePart;
  windows: Window[];
  /** Where the envelope's band starts in the box around, and how tall it is. */
  top?: Px;
  height: Px;
}

/** Beside the chosen points or span: what is done with them most, where it covers neither curve nor points. */
export function ChoiceStrip({ envelope, windows, top = 0, height }: Props) {
  const busy = useHand((state) => state.hand !== null);
  const narrow = useNarrow();
  const mine = useChoice((state) => state.envelopeId === envelope.id);
  const chosen = useChoice((state) => (mine ? state.chosen : NONE));
  const span = useChoice((state) => (mine ? state.span : null));
  const from = useChoice((state) => state.windowFrom);
  const corners = useSong((state) => state.curves[envelope.id]) ?? NO_CORNERS;
  const pxPerTick = useView((state) => state.pxPerTick);
  const window = windows.find((entry) => entry[0] === from);
  const first = envelope.points[leavingOf(envelope, chosen)[0]];
  const start = span?.[0] ?? first?.tick;
  if (!mine || busy || narrow || !window || start === undefined) return null;
  const inSong = (tick: number) => window[0] + (tick - window[2]) / window[3];
  const left = inView(tickToX({ pxPerTick }, inSong(start)) + APART);
  const toInside = (x: Px) => window[2] + (xToTick({ pxPerTick }, x) - window[0]) * window[3];
  const curve = rangeOf(corners, toInside(left), toInside(left + WIDTH));
  return (
    <div
      className="choice-strip"
      style={{ top: top + freeTop(envelope, curve, height), left, maxWidth: roomForSong() }}
      role="group"
      aria-label={span ? "The chosen span" : "Shape of the segments after the chosen points"}
    >
      {span ? <SpanDeeds /> : <ShapeDeeds envelope={envelope} chosen={chosen} />}
      <button
        type="button"
        className="by-choice px-2"
        onClick={() => setView({ sheet: "edit", panelOpen: true })}
        title="Everything else that can be done with them"
      >
        more
      </button>
    </div>
  );
}

/** Moved to the left where the view ends, so that all of it can be reached. */
function inView(left: Px): Px {
  const table = tableBox();
  if (!table) return left;
  return Math.max(table.scrollLeft, Math.min(left, table.scrollLeft + roomForSong() - WIDTH));
}

/** At the head or the foot of the band, whichever the curve leaves freer; under the band where neither has room. */
function freeTop(envelope: EnvelopePart, curve: [number, number] | null, height: Px): Px {
  const band = bandFor(envelope.role, height);
  const [highest, lowest] = curve ? [valueToY(band, curve[1]), valueToY(band, curve[0])] : [height / 2, height / 2];
  const [over, under] = [highest, height - lowest];
  if (Math.max(over, under) < HEIGHT + APART) return height + 4;
  return over >= under ? 2 : height - HEIGHT - 2;
}
