import { clsx } from "clsx";
import { Circle } from "lucide-react";
import { playedTrack } from "../../gestures/playIn";
import { toggleRecording } from "../../gestures/recorder";
import { keyHint } from "../../state/keyMap";
import { usePlayIn } from "../../state/playIn";
import { setView } from "../../state/view";

/** Plays notes in on the track at hand: counts in, then writes what is played. */
export function RecordButton({ words = false }: { words?: boolean }) {
  const recording = usePlayIn((state) => state.recording !== null);
  const press = () => {
    if (!recording && !words) setView({ foot: "keys" });
    void toggleRecording(playedTrack());
  };
  return (
    <button
      type="button"
      className={clsx("btn btn-sm", words ? "gap-1" : "btn-circle", recording ? "btn-error" : "btn-outline")}
      aria-pressed={recording}
      aria-label={recording ? "Stop recording" : "Record notes"}
      title={`${recording ? "Stop recording" : "Record notes on the track at hand"} ${keyHint("record")}`}
      onClick={press}
    >
      <Circle size={13} fill="currentColor" /> {words && (recording ? "Stop" : "Record")}
    </button>
  );
}
