import type { Conflict, Corners, Window } from "../../api/types";
import { bandFor, positionText, tickToX, valueToY } from "../../geometry/viewport";
import { player } from "../../sound/player";
import type { Placed } from "../../state/catalogue";
import { askedForValue } from "../../state/latest";
import { useSong } from "../../state/song";
import { setView, useView } from "../../state/view";
import { CurvePath } from "../CurvePath";
import { Writing } from "../Writing";
import { Axis } from "./Axis";

const NO_CORNERS: Corners = [];

interface HeardProps {
  focus: string | null;
  placed: Placed | null;
  view: [number, number];
  height: number;
}

/** The band of what is heard of a parameter. */
export function HeardStrip({ focus, placed, view: [from, to], height }: HeardProps) {
  const still = useSong((state) => (focus ? state.heard[focus] : undefined)) ?? NO_CORNERS;
  const tried = useSong((state) => (focus ? state.preview?.heard[focus] : undefined));
  const patches = useSong((state) => (focus ? state.preview?.patches?.heard[focus] : undefined));
  const coarse = useSong((state) => !!focus && !!state.preview?.coarse.includes(focus));
  const pxPerTick = useView((state) => state.pxPerTick);
  const view = { pxPerTick };
  const band = bandFor("set", height);
  const plot = (tick: number, value: number): [number, number] => [tickToX(view, tick), valueToY(band, value)];
  const chain = { still, tried, patches, window: [from, to, from, 1] as Window, plot, scale: `${pxPerTick} ${height}` };
  return (
    <div className="relative" style={{ height }}>
      <svg
        className="absolute inset-0 block w-full border-b border-base-300"
        height={height}
        style={{ background: "var(--strip)" }}
        aria-label="Heard"
        data-testid={`heard-${focus}`}
      >
        <CurvePath {...chain} className="heard-area" foot={height - 2} />
        <CurvePath {...chain} className="heard-edge" />
      </svg>
      {placed && <Axis scale={placed.scale} kind="set" height={height} width={tickToX(view, to)} />}
      {focus && <Writing addresses={[focus]} height={height} />}
      {coarse && (
        <span className="coarse-note" role="status">
          its bounds, until you let go
        </span>
      )}
      <ConflictMarks focus={focus} view={[from, to]} />
    </div>
  );
}

const NO_CONFLICTS: Conflict[] = [];

/** Where two clip envelopes set the parameter at once; a press leads to the sum there, where it can be settled. */
function ConflictMarks({ focus, view: [from, to] }: { focus: string | null; view: [number, number] }) {
  const conflicts = useSong((state) => (focus ? state.conflicts[focus] : undefined)) ?? NO_CONFLICTS;
  const pxPerTick = useView((state) => state.pxPerTick);
  const meters = useSong((state) => state.model.head.meters);
  const position = (tick: number) => positionText(meters, tick);
  return conflicts
    .filter((conflict) => conflict[0] < to && conflict[1] > from)
    .map(([start, end]) => (
      <button
        key={`${start} ${end}`}
        type="button"
        className="conflict"
        style={{ left: tickToX({ pxPerTick }, start), width: Math.max(8, tickToX({ pxPerTick }, end - start)) }}
        title={`Two set this from ${position(start)} to ${position(end)}; only one is heard. Press to settle it.`}
        aria-label={`Two set this: settle it at ${position(start)}`}
        onClick={() => {
          player.seek(start);
          askedForValue();
          setView({ sheet: "at-hand" });
        }}
      >
        <span className="sticky px-1" style={{ left: "var(--header-width)" }}>
          two set this
        </span>
      </button>
    ));
}
