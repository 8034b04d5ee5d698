import type { MouseEvent, PointerEvent } from "react";
import { memo } from "react";
import type { Meter, Ticks } from "../api/types";
import { RULER_HEIGHT } from "../geometry/heights";
import { barStart, barTicks, linesIn, positionText, tickToX, xToTick } from "../geometry/viewport";
import { drag } from "../gestures/drag";
import { barMenu } from "../gestures/menus";
import { player } from "../sound/player";
import { edit } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { useSong } from "../state/song";
import { setTransport, useTransport } from "../state/transport";
import { useView } from "../state/view";
import { Markers } from "./Markers";
import { RangeEnd } from "./RangeEnd";
import { Signatures } from "./Signatures";

/** The place that a number under the hand names. */
function numberAt(target: EventTarget): Ticks | null {
  const number = (target as Element).closest<HTMLElement>("[data-number]")?.dataset.number;
  return number === undefined ? null : Number(number);
}

/** Bars along the top: a press moves the playhead, a drag makes the range that playing repeats. */
export const Ruler = memo(function Ruler({
  view,
  headerWidth,
  bar,
}: {
  view: [number, number];
  headerWidth: number;
  bar: number;
}) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const trial = useTransport((state) => state.rangeTrial);
  const current = useSong((state) => state.model.head.range);
  const range = trial ?? current;
  const meters = useSong((state) => state.model.head.meters);
  const every = [1, 2, 4, 8, 16, 32, 64].find((bars) => bars * bar * pxPerTick > 44) ?? 128;
  const before = barStart(meters, view[0]) - every * bar;
  const bars = linesIn(meters, before, view[1], barTicks)
    .map(([tick, meter]) => ({ tick, meter, bar: meter.bar + (tick - meter.tick) / meter.bar_ticks }))
    .filter(({ tick, meter, bar }) => (bar - 1) % every === 0 || (tick === meter.tick && meter.bar > 1));
  const apart = ({ beat_ticks }: Meter) => beat_ticks * pxPerTick >= 56;
  const beats = linesIn(meters, barStart(meters, view[0]), view[1], (meter) =>
    apart(meter) ? meter.beat_ticks : meter.bar_ticks,
  ).filter(([tick, meter]) => (tick - meter.tick) % meter.bar_ticks !== 0);

  const press = (event: PointerEvent) => {
    if (event.pointerType === "touch") return;
    const x = event.clientX - event.currentTarget.getBoundingClientRect().left;
    const from = xToTick({ pxPerTick }, x);
    const named = numberAt(event.target);
    const stretch = (dx: number, free: boolean) => {
      const step = free ? 1 : Math.max(gridNow(), 960);
      const [a, b] = [snapSong(from, step), snapSong(from + xToTick({ pxPerTick }, dx), step)].sort((p, q) => p - q);
      return { on: true, start_tick: Math.max(0, a), end_tick: Math.max(b, a + step) };
    };
    drag(
      event,
      {
        move: ({ dx, free }) => setTransport({ rangeTrial: stretch(dx, free) }),
        drop: ({ dx, free, moved }) => {
          if (!moved) player.seek(named ?? snapSong(from, free ? 0 : gridNow()));
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
    player.seek(numberAt(event.target) ?? snapSong(xToTick({ pxPerTick }, x), gridNow()));
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
        onContextMenu={barMenu}
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
          aria-label={`Range ${positionText(meters, range.start_tick)} to ${positionText(meters, range.end_tick)}`}
        />
        <Signatures />
        <Markers />
        <RangeEnd side="start" range={range} />
        <RangeEnd side="end" range={range} />
        {beats.map(([tick]) => (
          <span
            key={`beat ${tick}`}
            className="faint absolute top-1 pl-1 text-xs opacity-80"
            style={{ left: tickToX({ pxPerTick }, tick) }}
            data-number={tick}
          >
            {positionText(meters, tick).replace(/\.0$/, "")}
          </span>
        ))}
        {bars.map(({ tick, bar }) => (
          <span
            key={tick}
            className="faint absolute top-0.5 pl-1 text-xs"
            style={{ left: tickToX({ pxPerTick }, tick) }}
            data-number={tick}
          >
            {bar}
          </span>
        ))}
      </div>
    </div>
  );
});
