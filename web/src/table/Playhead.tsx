import { type RefObject, useEffect, useRef } from "react";
import type { Px } from "../api/types";
import { handsBusy } from "../state/hand";
import { setTransport, transportNow, useTransport } from "../state/transport";
import { setView, useView, viewNow } from "../state/view";

/** How far from the right edge the playhead turns the view, and how far from the left it then stands. */
const TURN: Px = 20;
const LEAD: Px = 40;

interface Props {
  headerWidth: Px;
  scroller: RefObject<HTMLDivElement | null>;
}

/**
 * The line at the playhead, moved without drawing anything else again: while playing it glides by itself from where it
 * is to where it will be. The table follows it by whole views.
 */
export function Playhead({ headerWidth, scroller }: Props) {
  const line = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const box = scroller.current;
    const seen = { left: box?.scrollLeft ?? 0, width: box?.clientWidth ?? 0 };
    const onScroll = () => {
      seen.left = box?.scrollLeft ?? 0;
    };
    const sizes = new ResizeObserver(() => {
      seen.width = box?.clientWidth ?? 0;
    });
    if (box) sizes.observe(box);
    box?.addEventListener("scroll", onScroll, { passive: true });
    let gliding: Animation | undefined;
    const at = (tick: number) => `translateX(${tick * viewNow().pxPerTick}px)`;
    const place = () => {
      const { playhead, playing, glide } = transportNow();
      if (glide === null) gliding?.cancel();
      if (line.current && (glide === null || !gliding)) line.current.style.transform = at(playhead);
      const x = playhead * viewNow().pxPerTick;
      const follows = playing && viewNow().follow && !handsBusy();
      if (follows && out(x, seen.left, seen.width - headerWidth)) seen.left = turn(box, x);
    };
    const onGlide = () => {
      const { playhead, glide } = transportNow();
      gliding?.cancel();
      if (!glide) return;
      const way = [{ transform: at(playhead) }, { transform: at(glide.tick) }];
      gliding = line.current?.animate(way, { duration: glide.seconds * 1000, easing: "linear", fill: "both" });
      // It counts from now, however late the page gets to draw it.
      if (gliding) gliding.startTime = performance.now();
    };
    // One that is under way belongs to a line that is gone.
    if (transportNow().glide) setTransport({ glide: null });
    place();
    const stops = [
      useTransport.subscribe(place),
      useTransport.subscribe((now, before) => now.glide !== before.glide && onGlide()),
      useView.subscribe((now, before) => {
        // The glide was measured in other pixels, so it is asked for again.
        if (now.pxPerTick !== before.pxPerTick && transportNow().glide) setTransport({ glide: null });
        else place();
      }),
    ];
    return () => {
      for (const stop of stops) stop();
      gliding?.cancel();
      sizes.disconnect();
      box?.removeEventListener("scroll", onScroll);
    };
  }, [headerWidth, scroller]);
  return (
    <div
      ref={line}
      className="pointer-events-none absolute top-0 bottom-0 z-10 will-change-transform"
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

/** Turns the view over when the playhead leaves it. What is seen is told, not asked of the page in every frame. */
const out = (x: Px, left: Px, room: Px): boolean => room > 0 && (x < left || x > left + room - TURN);

function turn(box: HTMLElement | null, x: Px): Px {
  const left = Math.max(0, x - LEAD);
  if (box) box.scrollLeft = left;
  // What this wakes asks again whether to turn, so it is told afterwards.
  queueMicrotask(() => setView({ scrollTick: (box?.scrollLeft ?? left) / viewNow().pxPerTick }));
  return left;
}
