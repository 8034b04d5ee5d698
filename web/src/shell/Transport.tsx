import { Repeat, Square, Triangle } from "lucide-react";
import { useEffect, useRef } from "react";
import { positionText } from "../geometry/viewport";
import { player } from "../sound/player";
import { edit } from "../state/edits";
import { useSong } from "../state/song";
import { transportNow, useLevel, useTransport } from "../state/transport";
import { useView } from "../state/view";
export function PlayButton({ large = false }: { large?: boolean }) {
  const playing = useTransport((state) => state.playing);
  return (
    <button
      type="button"
      className={`btn btn-circle btn-neutral ${large ? "m-1 h-11 w-11" : "btn-sm"}`}
      aria-label={playing ? "Stop" : "Play"}
      title={`${playing ? "Stop" : "Play"} (space)`}
      onClick={() => player.toggle()}
    >
      {playing ? (
        <Square size={14} fill="currentColor" />
      ) : (
        <Triangle size={14} fill="currentColor" className="rotate-90" />
      )}
    </button>
  );
}

/** Nobody reads numbers that change more often than this. */
const READ_EVERY_MS = 90;

export function Position() {
  const meters = useSong((state) => state.model.head.meters);
  const shown = useRef<HTMLOutputElement>(null);
  useEffect(() => {
    let last = 0;
    const write = () => {
      const now = performance.now();
      const { playing, playhead } = transportNow();
      if (playing && now - last < READ_EVERY_MS) return;
      last = now;
      const text = positionText(meters, playhead);
      if (shown.current && shown.current.textContent !== text) shown.current.textContent = text;
    };
    write();
    return useTransport.subscribe(write);
  }, [meters]);
  return (
    <output
      ref={shown}
      className="w-18 text-base font-bold tabular-nums contain-layout sm:w-20"
      aria-label="Position"
      aria-live="off"
      data-testid="position"
    />
  );
}

export function RangeButton() {
  const range = useSong((state) => state.model.head.range);
  const meters = useSong((state) => state.model.head.meters);
  return (
    <button
      type="button"
      className={`btn btn-sm ${range.on ? "btn-secondary" : "btn-ghost"}`}
      aria-pressed={range.on}
      title="Repeat the range while playing; drag on the ruler to set it"
      onClick={() => void edit("set_range", { on: !range.on })}
    >
      <Repeat size={14} /> {positionText(meters, range.start_tick).replace(/\.0$/, "")} –{" "}
      {positionText(meters, range.end_tick).replace(/\.0$/, "")}
    </button>
  );
}

/** The quietest level that shows. */
const QUIETEST_DB = -60;

/** How loud it is. */
export function Level() {
  const meter = useRef<HTMLDivElement>(null);
  useEffect(() => {
    const write = ({ level }: { level: number }) => {
      const decibels = Math.max(level > 0 ? 20 * Math.log10(level) : QUIETEST_DB, QUIETEST_DB);
      const share = Math.min(1 - decibels / QUIETEST_DB, 1);
      if (!meter.current) return;
      meter.current.style.backgroundSize = `${(share * 100).toFixed(1)}% 100%`;
      meter.current.setAttribute("aria-valuenow", String(Math.round(Math.min(decibels, 0))));
    };
    write(useLevel.getState());
    return useLevel.subscribe(write);
  }, []);
  return (
    <div
      ref={meter}
      role="meter"
      aria-label="Level"
      aria-valuemin={QUIETEST_DB}
      aria-valuemax={0}
      aria-valuenow={QUIETEST_DB}
      className="level h-2 w-14 rounded-full bg-base-300"
    />
  );
}

/** There while it plays and a hand has scrolled away. */
export function FollowAgain() {
  const playing = useTransport((state) => state.playing);
  const follow = useView((state) => state.follow);
  if (!playing || follow) return null;
  return (
    <button
      type="button"
      className="btn btn-sm px-2"
      title="The view goes along with the playhead again"
      onClick={() => player.follow()}
    >
      Follow
    </button>
  );
}
