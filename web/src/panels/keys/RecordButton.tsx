import { clsx } from "clsx";
import { Circle } from "lucide-react";
import { toggleRecording } from "../../gestures/recording";
import { keyHint } from "../../state/keyMap";
import { TAKEN, usePerforming } from "../../state/performing";

/** Writes what hands play: counts in, then takes down notes and moves. */
export function RecordButton({ words = false, large = false }: { words?: boolean; large?: boolean }) {
  const recording = usePerforming((state) => state.pass !== null);
  const taken = usePerforming((state) => TAKEN[state.taken]);
  const does = recording ? "Stop recording" : `Record ${taken}: what is played and turned is written`;
  return (
    <button
      type="button"
      className={clsx(
        "btn",
        large ? "my-1 ml-1 h-11 w-11" : "btn-sm",
        words ? "gap-1" : "btn-circle",
        recording ? "btn-error" : "btn-outline",
      )}
      aria-pressed={recording}
      aria-label={recording ? "Stop recording" : `Record ${taken}`}
      title={`${does} ${keyHint("record")}`}
      onClick={() => void toggleRecording()}
    >
      <Circle size={13} fill="currentColor" /> {words && (recording ? "Stop" : "Record")}
    </button>
  );
}
