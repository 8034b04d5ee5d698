import { startTransition, useCallback, useEffect, useLayoutEffect, useRef, useState } from "react";
import { COARSE, moreLanes, rowHeight, stripsOf } from "../geometry/heights";
import { scaled } from "../geometry/text";
import { barTicks } from "../geometry/viewport";
import { pointTable, pressTable } from "../gestures/choosing";
import { pressEmpty } from "../gestures/clips";
import { goalAt, placeFiles } from "../gestures/files";
import { firstAutomated } from "../state/focus";
import { holdsRegions } from "../state/holds";
import { songEnd } from "../state/model";
import { fitRows, rest, reveal, stay, zoom } from "../state/scrolling";
import { useSong } from "../state/song";
import { setTable } from "../state/stage";
import { useShown } from "../state/useShown";
import { useView, viewNow } from "../state/view";
import { setWishes, wishesNow } from "../state/wishes";
import { useDropFiles } from "../ui/useDropFiles";
import { useRoomy } from "../ui/useNarrow";
import { AddTrack } from "./AddTrack";
import { FirstSteps } from "./FirstSteps";
import { Playhead } from "./Playhead";
import { Ruler } from "./Ruler";
import { TempoRow, tempoLanes } from "./TempoRow";
import { TrackRow } from "./TrackRow";

/** The view is widened to whole chunks, so that a little scrolling draws nothing anew. */
const CHUNK_PX = 1600;
const CHUNK_ROWS_PX = 160;
/** When rows were first on the screen, for whoever measures how the page opens. */
const ROWS_DRAWN = "rows drawn";
const NO_LANES: never[] = [];

/** How wide the names of tracks are: what is done with a track stands behind its name where there is room. */
const NARROW_HEADER = scaled(124);
const ROOMY_HEADER = scaled(COARSE ? 280 : 188);

/** The song on the table: ruler, tracks, playhead. Only what lies near the view is drawn. */
export function Table() {
  const { model, find } = useShown();
  const pxPerTick = useView((state) => state.pxPerTick);
  const unfolded = useView((state) => state.unfolded);
  const gather = useView((state) => state.gather);
  const tall = useView((state) => state.tall);
  const focus = useView((state) => state.focus);
  const shownLanes = useView((state) => state.shown);
  const pinnedLanes = useView((state) => state.pinned);
  const scroller = useRef<HTMLDivElement>(null);
  useDropFiles(scroller, (files, { clientX, clientY }) => void placeFiles(files, goalAt(clientX, clientY)));
  const headerWidth = useRoomy() ? ROOMY_HEADER : NARROW_HEADER;
  const bar = barTicks(model.head.meters[0]);
  const end = Math.max(songEnd(model), model.head.range.end_tick) + 4 * bar;
  const [view, setShown] = useState<[number, number]>([0, 120_000]);
  const [rows, setRows] = useState<[number, number]>([0, 1000]);

  const seen = useRef("");

  const look = useCallback(() => {
    const box = scroller.current;
    if (!box) return;
    const scale = viewNow().pxPerTick;
    const [left, right] = chunks(box.scrollLeft, box.clientWidth, CHUNK_PX);
    const rowsNow = chunks(box.scrollTop, box.clientHeight, CHUNK_ROWS_PX);
    const current = `${left} ${right} ${scale} ${rowsNow}`;
    if (current === seen.current) return;
    seen.current = current;
    startTransition(() => {
      setShown(same([left / scale, right / scale]));
      setRows(same(rowsNow));
    });
  }, []);

  useLayoutEffect(() => {
    setTable(scroller.current, headerWidth);
    performance.mark(ROWS_DRAWN);
    const { trackId, unfolded } = viewNow();
    if (wishesNow().rows) fitRows();
    setWishes({ rows: false });
    if (trackId && unfolded.includes(trackId)) reveal(trackId);
    return () => setTable(null, headerWidth);
  }, [headerWidth]);

  useLayoutEffect(() => {
    if (scroller.current) scroller.current.scrollLeft = viewNow().scrollTick * pxPerTick;
    look();
  }, [pxPerTick, look]);

  useEffect(() => {
    const box = scroller.current;
    if (!box) return;
    const onWheel = (event: WheelEvent) => {
      if (!event.ctrlKey) return stay();
      event.preventDefault();
      const x = event.clientX - box.getBoundingClientRect().left - headerWidth;
      zoom(Math.exp(-event.deltaY / 300), x);
    };
    // A finger that comes down on a handle has come to move it, not to scroll.
    const onTouch = (event: TouchEvent) => {
      pinch = event.touches.length === 2 ? apart(event) : 0;
      at = middleOf(event);
      if (pinch || (event.target as Element).closest(".held")) event.preventDefault();
    };
    // Two fingers zoom about the place between them, and pan.
    let pinch = 0;
    let at: [number, number] = [0, 0];
    const pan = (event: TouchEvent, to: HTMLElement) => {
      const next = middleOf(event);
      to.scrollLeft -= next[0] - at[0];
      to.scrollTop -= next[1] - at[1];
      at = next;
    };
    const apart = ({ touches: [a, b] }: TouchEvent) => Math.max(20, Math.abs(a.clientX - b.clientX));
    const onPinch = (event: TouchEvent) => {
      stay();
      if (event.touches.length !== 2 || !pinch) return;
      event.preventDefault();
      const middle =
        (event.touches[0].clientX + event.touches[1].clientX) / 2 - box.getBoundingClientRect().left - headerWidth;
      zoom(apart(event) / pinch, middle);
      pan(event, box);
      pinch = apart(event);
    };
    box.addEventListener("touchmove", onPinch, { passive: false });
    box.addEventListener("wheel", onWheel, { passive: false });
    box.addEventListener("touchstart", onTouch, { passive: false });
    const sized = new ResizeObserver(look);
    sized.observe(box);
    return () => {
      box.removeEventListener("wheel", onWheel);
      box.removeEventListener("touchstart", onTouch);
      box.removeEventListener("touchmove", onPinch);
      sized.disconnect();
    };
  }, [headerWidth, look]);

  const tempo = tempoLanes(find).length > 0;
  let top = tempo ? stripsOf().lane : 0;
  return (
    <div
      ref={scroller}
      className="relative h-full overflow-auto overscroll-none bg-base-200 select-none"
      data-testid="table"
      tabIndex={-1}
      onScroll={(event) => {
        look();
        rest(event.currentTarget.scrollLeft / viewNow().pxPerTick);
      }}
    >
      <div
        className={`relative flex min-h-full flex-col ${gather ? "touch-none" : ""}`}
        onPointerDown={(event) => pressTable(event, pressEmpty)}
        onPointerDownCapture={(event) => gather && pressTable(event, pressEmpty)}
        onPointerMove={(event) => pointTable(event.clientX, event.clientY)}
        style={{ width: headerWidth + end * pxPerTick, ["--header-width" as string]: `${headerWidth}px` }}
      >
        <Ruler view={view} headerWidth={headerWidth} bar={bar} />
        <BarLines view={view} end={end} headerWidth={headerWidth} />
        {tempo && <TempoRow model={model} find={find} view={view} headerWidth={headerWidth} />}
        {model.tracks.map((track) => {
          const open = unfolded.includes(track.id);
          const lanes = find.envelopes[`track/${track.id}`] ?? NO_LANES;
          const focused = focus[track.id] ?? firstAutomated(track, find, model);
          const more = moreLanes(
            lanes,
            open,
            focused,
            shownLanes[track.id] ?? NO_LANES,
            pinnedLanes[track.id] ?? NO_LANES,
          );
          const height = rowHeight(track, holdsRegions(track), open, more.length, tall[track.id]);
          top += height;
          const near = top > rows[0] && top - height < rows[1];
          return near ? (
            <TrackRow key={track.id} track={track} model={model} find={find} view={view} headerWidth={headerWidth} />
          ) : (
            <div key={track.id} className="shrink-0" style={{ height }} />
          );
        })}
        <div className="flex grow">
          <div
            className="sticky left-0 z-20 shrink-0 border-r border-base-300 bg-base-200"
            style={{ width: headerWidth }}
          >
            <AddTrack headerWidth={headerWidth} />
          </div>
          <FirstSteps />
        </div>
        <Playhead headerWidth={headerWidth} scroller={scroller} />
      </div>
    </div>
  );
}

/** The place between all fingers. */
function middleOf({ touches }: TouchEvent): [number, number] {
  const all = [...touches];
  const mean = (pick: (touch: Touch) => number) =>
    all.reduce((sum, touch) => sum + pick(touch), 0) / Math.max(1, all.length);
  return [mean((touch) => touch.clientX), mean((touch) => touch.clientY)];
}

/** From and to, in whole chunks with a quarter of one to spare. */
const chunks = (start: number, length: number, size: number): [number, number] => [
  Math.max(0, Math.floor(start / size - 0.25) * size),
  Math.ceil((start + length) / size + 0.25) * size,
];

/** Keeps the old pair while it says the same. */
const same = (next: [number, number]) => (old: [number, number]) =>
  old[0] === next[0] && old[1] === next[1] ? old : next;

/** A line for each bar, as one pattern from where each time signature begins. */
function BarLines({ view, end, headerWidth }: { view: [number, number]; end: number; headerWidth: number }) {
  const pxPerTick = useView((state) => state.pxPerTick);
  const meters = useSong((state) => state.model.head.meters);
  const until = Math.min(view[1], end);
  return meters.map((meter, i) => {
    const style = {
      left: headerWidth + meter.tick * pxPerTick,
      backgroundImage: "linear-gradient(to right, var(--color-base-300) 1px, transparent 1px)",
      backgroundSize: `${barTicks(meter) * pxPerTick}px 100%`,
      width: Math.max(0, Math.min(until, meters[i + 1]?.tick ?? until) - meter.tick) * pxPerTick,
    };
    return (
      <div key={meter.bar} className="pointer-events-none absolute top-0 bottom-0" style={style} aria-hidden="true" />
    );
  });
}
