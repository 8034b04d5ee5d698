import type { ClipPart, Corners, EnvelopePart, Px, Window } from "../../api/types";
import { windowPath } from "../../geometry/corners";
import { bandFor, tickToX, valueToY } from "../../geometry/viewport";
import { useChoice } from "../../state/choice";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";

const NO_CORNERS: Corners = [];
/** Room that is left for the words. */
const LEAST: Px = 12;

interface Props {
  envelope: EnvelopePart;
  clip: ClipPart | undefined;
  windows: Window[];
  height: Px;
}

/**
 * What of an envelope lies past the end of its loop, where it is never heard: hatched beyond it, in the pass at hand.
 */
export function PastEnd({ envelope, clip, windows, height }: Props) {
  const corners = useSong((state) => state.preview?.curves[envelope.id] ?? state.curves[envelope.id]) ?? NO_CORNERS;
  const from = useChoice((state) => (state.envelopeId === envelope.id ? state.windowFrom : null));
  const pxPerTick = useView((state) => state.pxPerTick);
  const end = clip?.length_ticks ?? 0;
  const past = envelope.points.filter((point) => point.tick > end);
  const last = past[past.length - 1];
  const window = windows.find((one) => one[0] === from);
  if (envelope.clock !== "each_loop" || !last || !window) return null;
  const [start, , position, rate] = window;
  const song = (tick: number) => start + (tick - position) / rate;
  const x = tickToX({ pxPerTick }, song(end));
  const width = Math.max(LEAST, tickToX({ pxPerTick }, song(last.tick)) - x);
  const band = bandFor(envelope.role, height);
  const tail: Window = [song(end), song(last.tick), end, rate];
  const words = `${past.length} ${past.length === 1 ? "point lies" : "points lie"} past the end of the loop: not heard`;
  return (
    <g pointerEvents="none" data-testid={`past-${envelope.id}`}>
      <pattern
        id={`hatch-${envelope.id}`}
        width={7}
        height={7}
        patternUnits="userSpaceOnUse"
        patternTransform="rotate(45)"
      >
        <path d="M0 0V7" className="hatch-line" />
      </pattern>
      <rect x={x} y={0} width={width} height={height} fill={`url(#hatch-${envelope.id})`}>
        <title>{words}</title>
      </rect>
      <path
        d={windowPath(corners, tail, (tick, value) => [tickToX({ pxPerTick }, tick), valueToY(band, value)])}
        className="stitched aside-line"
      />
      <text x={x + 4} y={height - 6} className="axis-text" fontSize={12}>
        {words}
      </text>
    </g>
  );
}
