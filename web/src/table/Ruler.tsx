import type { MouseEvent, PointerEvent } from "react";
import { RULER_HEIGHT } from "../geometry/heights";
import { beatTicks, positionText, snapTick, tickToX, xToTick } from "../geometry/viewport";
import { drag } from "../gestures/drag";
import { player } from "../sound/player";
import { edit } from "../state/edits";
import { gridNow } from "../state/grid";
import { useSong } from "../state/song";
import { setTransport, useTransport } from "../state/transport";
import { useView } from "../state/view";
import { Markers } from "./Markers";
import { RangeEnd } from "./RangeEnd";

/** Bars along the top: a press moves the playhead, a drag makes the range that playing repeats. */
export function Ruler({ view, headerWidth, bar }: { view: [number, number]; headerWidth: number; bar: number }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const trial = useTransport((state) => state.rangeTrial);
  const standing = useSong((state) => state.model.head.range);
  const range = trial ?? standing;
  const meter = useSong((state) => state.model.head.meter);
  const every = [1, 2, 4, 8, 16, 32, 64].find((bars) => bars * bar * pxPerTick > 44) ?? 128;
  const first = Math.floor(view[0] / bar / every) * every;
  const count = Math.ceil((view[1] - view[0]) / bar / every) + 1;

  const beat = beatTicks(meter);
  const from = Math.floor(view[0] / beat);
  const beats =
    beat * pxPerTick < 56
      ? []
      : Array.from({ length: Math.ceil((view[1] - view[0]) / beat) }, (_, i) => (from + i) * beat).filter(
          (tick) => tick % bar !== 0,
        );

  const press = (event: PointerEvent) => {
    if (event.pointerType === "touch") return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const from = xToTick({ pxPerTick }, x);
    const stretch = (dx: number, free: boolean) => {
      const step = free ? 1 : Math.max(gridNow(), 960);
      const [a, b] = [snapTick(from, step), snapTick(from + xToTick({ pxPerTick }, dx), step)].sort((p, q) => p - q);
      return { on: true, start_tick: Math.max(0, a), end_tick: Math.max(b, a + step) };
    };
    drag(
      event,
      {
        move: ({ dx, free }) => setTransport({ rangeTrial: stretch(dx, free) }),
        drop: ({ dx, free, moved }) => {
          if (!moved) player.seek(snapTick(from, free ? 0 : gridNow()));
          else void edit("set_range", stretch(dx, free)).then(() => setTransport({ rangeTrial: null }));
        },
        cancel: () => setTransport({ rangeTrial: null }),
      },
      "across",
    );
  };

  /** A finger sets the playhead by a tap; a swipe scrolls. */
  const tap = (event: MouseEvent) => {
    if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== "touch") return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    player.seek(snapTick(xToTick({ pxPerTick }, x), gridNow()));
  };

  return (
    <div
      className="sticky top-0 z-30 flex shrink-0 border-b border-base-300 bg-base-200"
      style={{ height: RULER_HEIGHT }}
    >
      <div
        className="sticky left-0 z-10 shrink-0 border-r border-base-300 bg-base-200"
        style={{ width: headerWidth }}
      />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: Home and the page keys move the playhead */}
      {/* biome-ignore lint/a11y/useKeyWithClickEvents: Home and the page keys move the playhead */}
      <div
        className="relative grow touch-pan-x"
        onPointerDown={press}
        onClick={tap}
        data-testid="ruler"
        title="Press to move the playhead; drag to set the range that repeats"
      >
        <div
          className={`range-bar absolute bottom-0 h-2 rounded-sm ${range.on ? "bg-secondary" : "bg-base-300"}`}
          style={{
            left: tickToX({ pxPerTick }, range.start_tick),
            width: tickToX({ pxPerTick }, range.end_tick - range.start_tick),
          }}
          data-testid="range"
          role="img"
          aria-label={`Range ${positionText(meter, range.start_tick)} to ${positionText(meter, range.end_tick)}`}
        />
        <Markers />
        <RangeEnd side="start" range={range} />
        <RangeEnd side="end" range={range} />
        {beats.map((tick) => (
          <span
            key={`beat ${tick}`}
            className="faint pointer-events-none absolute top-1 pl-1 text-xs opacity-80"
            style={{ left: tickToX({ pxPerTick }, tick) }}
          >
            {positionText(meter, tick).replace(/\.0$/, "")}
          </span>
        ))}
        {Array.from({ length: count }, (_, i) => first + i * every).map((index) => (
          <span
            key={index}
            className="faint pointer-events-none absolute top-0.5 pl-1 text-xs"
            style={{ left: tickToX({ pxPerTick }, index * bar) }}
          >
            {index + 1}
          </span>
        ))}
      </div>
    </div>
  );
}
