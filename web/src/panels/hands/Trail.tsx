import { useEffect, useRef } from "react";
import { performingNow, usePerforming } from "../../state/performing";
import { transportNow, useTransport } from "../../state/transport";

/** So much of a trail is kept. */
const MOST = 600;

/** The way the pad went in this lap, and, fainter, in the one before; written onto the page by itself. */
export function Trail({ x, y }: { x: string | null; y: string | null }) {
  const now = useRef<SVGPolylineElement>(null);
  const before = useRef<SVGPolylineElement>(null);
  useEffect(() => {
    let places: string[] = [];
    let playhead = transportNow().playhead;
    const write = () => {
      const { hands } = performingNow();
      const [across, up] = [hands[x ?? ""], hands[y ?? ""]];
      if (across === undefined && up === undefined) return;
      places = [...places, `${((across ?? 0.5) * 100).toFixed(1)},${((1 - (up ?? 0.5)) * 100).toFixed(1)}`].slice(
        -MOST,
      );
      now.current?.setAttribute("points", places.join(" "));
    };
    const lap = ({ playhead: next }: { playhead: number }) => {
      if (next < playhead) {
        before.current?.setAttribute("points", places.join(" "));
        places = [];
        now.current?.setAttribute("points", "");
      }
      playhead = next;
    };
    const ends = [usePerforming.subscribe(write), useTransport.subscribe(lap)];
    return () => {
      for (const end of ends) end();
    };
  }, [x, y]);
  return (
    <svg className="pad-trail" viewBox="0 0 100 100" preserveAspectRatio="none" aria-hidden="true">
      <polyline ref={before} className="pad-before" data-testid="pad-before" />
      <polyline ref={now} className="pad-now" data-testid="pad-now" />
    </svg>
  );
}
