import { type RefObject, useEffect } from "react";
import { setView, song, useSong } from "../state/store";

/** The line at the playhead; while playing the table follows it by whole views. */
export function Playhead({ headerWidth, scroller }: { headerWidth: number; scroller: RefObject<HTMLDivElement | null> }) {
  const x = useSong((state) => state.playhead * state.view.pxPerTick);
  const playing = useSong((state) => state.playing);
  useEffect(() => {
    const box = scroller.current;
    if (!box || !playing || !song().view.follow) return;
    const room = box.clientWidth - headerWidth;
    if (x >= box.scrollLeft && x <= box.scrollLeft + room - 20) return;
    box.scrollLeft = Math.max(0, x - 40);
    setView({ scrollTick: box.scrollLeft / song().view.pxPerTick });
  }, [x, playing, headerWidth, scroller]);
  return (
    <div className="pointer-events-none absolute top-0 bottom-0 z-10" style={{ left: headerWidth, transform: `translateX(${x}px)` }} data-testid="playhead">
      <i className="absolute top-0 bottom-0 w-[1.5px] bg-base-content" />
      <i className="absolute -left-[5px] block border-x-[6px] border-t-[8px] border-x-transparent border-t-base-content" style={{ top: 20 }} />
    </div>
  );
}
