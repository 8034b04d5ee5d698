import { CalendarRange } from "lucide-react";
import { type ReactNode, useEffect, useRef, useState } from "react";
import { copyTime, cutTime, deleteTime, insertTime, pasteTime } from "../gestures/songTime";
import { editAndTell } from "../state/edits";
import { useSong, song } from "../state/song";
import { setView } from "../state/view";
import { useChoice, chooseRegions } from "../state/choice";
import { positionText } from "../geometry/viewport";

/** Makes a carrier clip over the range and takes it in hand. */
async function makeCarrier(): Promise<void> {
  const { start_tick, end_tick } = song().model.head.range;
  const change = await editAndTell("make_carrier", { start_tick, length_ticks: end_tick - start_tick });
  const made = change?.parts.find(([kind, , record]) => kind === "region" && record !== null && (record as { start_tick: number }).start_tick === start_tick);
  if (!made) return;
  chooseRegions([made[1]]);
  setView({ trackId: song().model.regions[made[1]].owner.slice("track/".length) });
  setView({ sheet: "clip" });
}

/** What is done with whole stretches of the song: the range, at the playhead. */
export function TimeActions({ onDone = () => {} }: { onDone?: () => void }) {
  const range = useSong((state) => state.model.head.range);
  const meter = useSong((state) => state.model.head.meter);
  const copied = useChoice((state) => state.clipboard !== null && "stretch" in state.clipboard);
  const text = (tick: number) => positionText(meter, tick).replace(/\.0$/, "");
  const item = (words: string, what: string, act: () => unknown, off = false): ReactNode => (
    <button
      type="button"
      className="btn btn-ghost btn-sm h-auto min-h-9 flex-col items-start gap-0 py-1 font-normal pointer-coarse:min-h-11"
      disabled={off}
      onClick={() => {
        void act();
        onDone();
      }}
    >
      <span className="font-semibold">{words}</span>
      <span className="faint text-[11.5px]">{what}</span>
    </button>
  );
  return (
    <div className="flex flex-col" role="group" aria-label="Song time">
      <p className="faint px-3 py-1 text-[11.5px]">The range {text(range.start_tick)} – {text(range.end_tick)}, over all tracks, lanes and the tempo</p>
      {item("Copy time", "take the range as it is", copyTime)}
      {item("Cut time", "take it out; what lies behind moves up", cutTime)}
      {item("Delete time", "the same, without keeping it", deleteTime)}
      {item("Paste time", "at the playhead, with room made for it", () => pasteTime(), !copied)}
      {item("Paste over", "at the playhead, in place of what lies there", () => pasteTime(true), !copied)}
      {item("Insert time", "at the playhead, as long as the range", insertTime)}
      {item("New carrier clip", "over the range: moves for any knob of the song", makeCarrier)}
    </div>
  );
}

/** The song time actions behind one button of the tool bar. */
export function TimeMenu() {
  const [place, setPlace] = useState<{ left: number; top: number } | null>(null);
  const box = useRef<HTMLDivElement>(null);
  useEffect(() => {
    if (!place) return;
    const close = (event: Event) => {
      if (event instanceof KeyboardEvent ? event.key === "Escape" : !box.current?.contains(event.target as Node)) setPlace(null);
    };
    window.addEventListener("pointerdown", close, true);
    window.addEventListener("keydown", close, true);
    return () => {
      window.removeEventListener("pointerdown", close, true);
      window.removeEventListener("keydown", close, true);
    };
  }, [place]);
  return (
    <div ref={box} className="shrink-0">
      <button
        type="button"
        className="btn btn-ghost btn-sm px-2 font-normal pointer-coarse:h-11"
        aria-haspopup="true"
        aria-expanded={place !== null}
        title="Cut, copy, paste, insert and delete stretches of the whole song; carrier clips"
        onClick={(event) => {
          const { left, bottom } = event.currentTarget.getBoundingClientRect();
          setPlace(place ? null : { left: Math.max(4, Math.min(left, window.innerWidth - 300)), top: bottom + 4 });
        }}
      >
        <CalendarRange size={15} /> Song time
      </button>
      {place && (
        <div className="fixed z-50 max-h-[70dvh] w-72 overflow-auto rounded-box border border-base-300 bg-base-100 p-1 shadow-lg" style={place}>
          <TimeActions onDone={() => setPlace(null)} />
        </div>
      )}
    </div>
  );
}
