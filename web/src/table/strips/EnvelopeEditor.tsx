import { memo } from "react";
import type { Corners, EnvelopePart, Px, Ticks, Window } from "../../api/types";
import { windowPath } from "../../geometry/corners";
import type { Ground } from "../../geometry/hit";
import { bandFor, tickToX, valueToY } from "../../geometry/viewport";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";
import { WindowEditor } from "./WindowEditor";

interface Props {
  envelope: EnvelopePart;
  windows: Window[];
  height: Px;
  name: string;
  line: "stitched" | "solid-line";
  view: [from: Ticks, to: Ticks];
  /** What a press on empty ground without a drag means, by the tick it is on. */
  onGround?: (tick: Ticks) => void;
}

/** A point at the end of a window can be taken hold of from outside it, too. */
const REACH: Px = 10;
const NO_CORNERS: Corners = [];

/** One envelope wherever it sounds in view, to be edited. */
export const EnvelopeEditor = memo(function EnvelopeEditor({ envelope, windows, height, view, ...rest }: Props) {
  const corners = useSong((state) => state.preview?.curves[envelope.id] ?? state.curves[envelope.id]) ?? NO_CORNERS;
  const still = useSong((state) => state.curves[envelope.id]) ?? NO_CORNERS;
  const rests = useSong((state) => state.rested.includes(envelope.id));
  const pxPerTick = useView((state) => state.pxPerTick);
  const band = bandFor(envelope.role, height);
  return (
    <g className={envelope.on && !rests ? "" : "off-line"}>
      {windows
        .filter(([from, to]) => from < view[1] && to > view[0])
        .map((window) => {
          const groundOf = (one: Window): Ground => ({ envelope, corners: still, window: one, band, pxPerTick });
          const ground = groundOf(window);
          const beside = windows.filter((other) => other[1] === window[0] || other[0] === window[1]).map(groundOf);
          const ends: [Px, Px] = [
            windows.some((other) => other[1] === window[0]) ? 0 : REACH,
            windows.some((other) => other[0] === window[1]) ? 0 : REACH,
          ];
          return (
            <WindowEditor
              key={window[0]}
              ground={ground}
              beside={beside}
              ends={ends}
              corners={corners}
              height={height}
              view={view}
              {...rest}
            />
          );
        })}
    </g>
  );
});

/** An envelope shown behind the one being edited. */
export function EnvelopeAside({
  envelope,
  windows,
  height,
  line,
}: {
  envelope: EnvelopePart;
  windows: Window[];
  height: Px;
  line: "stitched" | "solid-line";
}) {
  const corners = useSong((state) => state.preview?.curves[envelope.id] ?? state.curves[envelope.id]) ?? NO_CORNERS;
  const pxPerTick = useView((state) => state.pxPerTick);
  const band = bandFor(envelope.role, height);
  return windows.map((window) => (
    <path
      key={window[0]}
      d={windowPath(corners, window, (tick, value) => [tickToX({ pxPerTick }, tick), valueToY(band, value)])}
      className={`${line} aside-line`}
      pointerEvents="none"
    />
  ));
}
