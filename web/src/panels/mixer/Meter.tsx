import { useEffect, useRef } from "react";
import { usePeaks } from "../../state/transport";

/** The quietest level that shows, in decibels. */
const QUIETEST_DB = -60;
/** A peak stands this long, then falls. */
const HELD_MS = 1500;

const share = (level: number): number =>
  Math.max(0, Math.min(1, 1 - Math.max(level > 0 ? 20 * Math.log10(level) : QUIETEST_DB, QUIETEST_DB) / QUIETEST_DB));

/** How loud a track is, and the loudest it was lately; written onto the page without drawing anything else. */
export function Meter({ trackId, name }: { trackId: string; name: string }) {
  const meter = useRef<HTMLDivElement>(null);
  const bar = useRef<HTMLElement>(null);
  const mark = useRef<HTMLElement>(null);
  useEffect(() => {
    let held = { level: 0, until: 0 };
    const write = () => {
      const level = usePeaks.getState().peaks[trackId] ?? 0;
      const now = performance.now();
      if (level >= held.level || now > held.until) held = { level, until: now + HELD_MS };
      if (bar.current) bar.current.style.transform = `scaleY(${share(level).toFixed(3)})`;
      if (mark.current) {
        mark.current.style.transform = `translateY(${(-share(held.level) * 100).toFixed(1)}%)`;
        mark.current.style.opacity = held.level > 0 ? "1" : "0";
      }
      meter.current?.classList.toggle("meter-over", held.level > 1);
    };
    write();
    return usePeaks.subscribe(write);
  }, [trackId]);
  return (
    <div ref={meter} className="channel-meter" role="img" aria-label={`Level of ${name}`}>
      <i ref={bar} className="meter-bar" />
      <i ref={mark} className="meter-peak" />
    </div>
  );
}
