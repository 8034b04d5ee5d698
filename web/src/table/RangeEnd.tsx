import type { KeyboardEvent, PointerEvent } from "react";
import type { Head, Ticks } from "../api/types";
import { barTicks, meterAt, positionText, tickToX, xToTick } from "../geometry/viewport";
import { drag, type Reach } from "../gestures/drag";
import { player } from "../sound/player";
import { edit } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { song, useSong } from "../state/song";
import { setTransport } from "../state/transport";
import { useView, viewNow } from "../state/view";

type Range = Head["range"];
type Side = "start" | "end";

/** The range with one end at another tick; it keeps at least a grid step. */
function withEnd(range: Range, side: Side, tick: Ticks): Range {
  const least = Math.max(gridNow(), 60);
  return side === "start"
    ? { ...range, on: true, start_tick: Math.max(0, Math.min(tick, range.end_tick - least)) }
    : { ...range, on: true, end_tick: Math.max(tick, range.start_tick + least) };
}

const make = (range: Range): void => void edit("set_range", range).finally(() => setTransport({ rangeTrial: null }));

/** An end of the range that repeats, to be dragged, or moved by the keyboard. */
export function RangeEnd({ side, range }: { side: Side; range: Range }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const meters = useSong((state) => state.model.head.meters);
  const tick = side === "start" ? range.start_tick : range.end_tick;
  const press = (event: PointerEvent) => {
    const current = song().model.head.range;
    const from = side === "start" ? current.start_tick : current.end_tick;
    const wish = (reach: Reach) =>
      withEnd(current, side, snapSong(from + xToTick(viewNow(), reach.dx), reach.free ? 1 : Math.max(gridNow(), 960)));
    drag(
      event,
      {
        move: (reach) => setTransport({ rangeTrial: wish(reach) }),
        drop: (reach) => (reach.moved ? make(wish(reach)) : player.seek(from)),
        cancel: () => setTransport({ rangeTrial: null }),
      },
      "across",
    );
  };
  const onKey = (event: KeyboardEvent) => {
    const way = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
    if (!way) return;
    event.preventDefault();
    event.stopPropagation();
    const by = event.shiftKey ? gridNow() || 60 : barTicks(meterAt(meters, tick));
    make(withEnd(song().model.head.range, side, Math.max(0, tick + way * by)));
  };
  return (
    <div
      role="slider"
      tabIndex={0}
      aria-label={side === "start" ? "Start of the range" : "End of the range"}
      aria-valuemin={0}
      aria-valuenow={tick}
      aria-valuetext={positionText(meters, tick)}
      className="range-end held"
      style={{ left: tickToX({ pxPerTick }, tick) }}
      title={side === "start" ? "Drag the start of the range" : "Drag the end of the range"}
      data-testid={`range-${side}`}
      onPointerDown={press}
      onKeyDown={onKey}
    />
  );
}
