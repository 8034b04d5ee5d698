import { type RefObject, useEffect, useRef } from "react";
import type { Px } from "../api/types";
import { handsBusy } from "../state/hand";
import { transportNow, useTransport } from "../state/transport";
import { setView, useView, viewNow } from "../state/view";

/** How far from the right edge the playhead turns the view, and how far from the left it then stands. */
const TURN: Px = 20;
const LEAD: Px = 40;

interface Props {
  headerWidth: Px;
  scroller: RefObject<HTMLDivElement | null>;
}

/**
 * The line at the playhead, moved without drawing anything else again; while playing the table follows it by whole
 * views.
 */
export function Playhead({ headerWidth, scroller }: Props) {
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const place = () => {
      const x = transportNow().playhead * viewNow().pxPerTick;
      if (line.current) line.current.style.transform = `translateX(${x}px)`;
      if (transportNow().playing && viewNow().follow && !handsBusy()) turn(scroller.current, x, headerWidth);
    };
    place();
    const stops = [useTransport.subscribe(place), useView.subscribe(place)];
    return () => {
      for (const stop of stops) stop();
    };
  }, [headerWidth, scroller]);
  return (
    <div
      ref={line}
      className="pointer-events-none absolute top-0 bottom-0 z-10"
      style={{ left: headerWidth }}
      data-testid="playhead"
    >
      <i className="playhead absolute top-0 bottom-0 w-[1.5px] bg-base-content" />
      <i
        className="absolute -left-[5px] block border-x-[6px] border-t-[8px] border-x-transparent border-t-base-content"
        style={{ top: 20 }}
      />
    </div>
  );
}

function turn(box: HTMLElement | null, x: Px, headerWidth: Px): void {
  if (!box) return;
  const room = box.clientWidth - headerWidth;
  if (x >= box.scrollLeft && x <= box.scrollLeft + room - TURN) return;
  box.scrollLeft = Math.max(0, x - LEAD);
  setView({ scrollTick: box.scrollLeft / viewNow().pxPerTick });
}
