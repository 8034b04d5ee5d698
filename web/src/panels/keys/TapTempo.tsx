import { useRef, useState } from "react";
import { tapped, tempoTick } from "../../gestures/inputs";
import { editAndTell } from "../../state/edits";

/** After so long without a tap the tempo is taken. */
const DONE_MS = 1200;

/** Taps a tempo: from the third tap on it is shown; once the hand rests, the song takes it. */
export function TapTempo() {
  const [bpm, setBpm] = useState<number | null>(null);
  const timer = useRef(0);
  const tap = (at: number) => {
    const now = tapped(at);
    setBpm(now);
    clearTimeout(timer.current);
    if (now === null) return;
    timer.current = window.setTimeout(() => {
      setBpm(null);
      void editAndTell("set_tempo", { tick: tempoTick(), bpm: now });
    }, DONE_MS);
  };
  return (
    <button
      type="button"
      className="btn btn-sm w-28"
      title="Tap three times or more in the tempo the song is to have"
      onPointerDown={(event) => tap(event.timeStamp)}
      onKeyDown={(event) => event.key === "Enter" && !event.repeat && tap(event.timeStamp)}
    >
      {bpm === null ? "Tap the tempo" : `${bpm} BPM`}
    </button>
  );
}
