import { useEffect, useRef } from "react";
import { usePeaks } from "../../state/transport";

/** The quietest level that shows, in decibels. */
const QUIETEST_DB = -60;
/** A peak stands this long, then falls. */
const HELD_MS = 1500;

const share = (level: number): number =>
  Math.max(0, Math.min(1, 1 - Math.max(level > 0 ? 20 * Math.log10(level) : QUIETEST_DB, QUIETEST_DB) / QUIETEST_DB));

/**
 * How loud a track is, and the loudest it was lately. Both are backgrounds, which are painted again without laying
 * anything out and without layers of their own.
 */
export function Meter({ trackId, name }: { trackId: string; name: string }) {
  const meter = useRef<HTMLDivElement>(null);
  useEffect(() => {
    let held = { level: 0, until: 0 };
    const write = () => {
      const level = usePeaks.getState().peaks[trackId] ?? 0;
      const now = performance.now();
      if (level >= held.level || now > held.until) held = { level, until: now + HELD_MS };
      const box = meter.current;
      if (!box) return;
      box.style.backgroundSize = `100% ${held.level > 0 ? 2 : 0}px, 100% ${(share(level) * 100).toFixed(1)}%`;
      box.style.backgroundPosition = `0 ${((1 - share(held.level)) * 100).toFixed(1)}%, 0 100%`;
      box.classList.toggle("meter-over", held.level > 1);
    };
    write();
    return usePeaks.subscribe(write);
  }, [trackId]);
  return <div ref={meter} className="channel-meter" role="img" aria-label={`Level of ${name}`} />;
}
