import { useRef } from "react";
import type { Px, TrackPart } from "../../api/types";
import { hueStyle } from "../../geometry/hue";
import { lettersOf } from "../../gestures/inputs";
import { usePlayIn } from "../../state/playIn";
import { noteName } from "../../table/material";
import { useWidth } from "../../ui/useWidth";
import { useKeyed } from "./useKeyed";
import { usePlayed } from "./usePlayed";

/** Of the twelve steps of an octave, those that lie between two of the seven. */
const BETWEEN = new Set([1, 3, 6, 8, 10]);
const OCTAVE = 12;
const HIGHEST = 127;
/** A key is about so wide. */
const KEY: Px = 32;

const isBetween = (pitch: number): boolean => BETWEEN.has(pitch % OCTAVE);

/** Keys in two rows as on a keyboard, from the lowest on, as many octaves as there is room for. */
export function Keyboard({ track }: { track: TrackPart }) {
  const box = useRef<HTMLDivElement>(null);
  const width = useWidth(box);
  const lowest = usePlayIn((state) => state.lowest);
  const held = usePlayIn((state) => state.held);
  const typing = usePlayIn((state) => state.typing);
  const played = usePlayed();
  const octaves = Math.min(Math.max(1, Math.floor(width / (7 * KEY))), 5);
  const last = Math.min(lowest + octaves * OCTAVE, HIGHEST);
  const pitches = Array.from({ length: Math.max(0, last - lowest + 1) }, (_, i) => lowest + i);
  const { keyRef, handlers } = useKeyed(pitches);
  const whole = pitches.filter((pitch) => !isBetween(pitch));
  const each = 100 / whole.length;
  const key = (pitch: number, style: object) => (
    <button
      key={pitch}
      ref={keyRef(pitch)}
      type="button"
      className={isBetween(pitch) ? "key key-between" : "key"}
      style={style}
      aria-label={noteName(pitch)}
      data-pitch={pitch}
      data-held={held.includes(pitch) || undefined}
      tabIndex={pitch === lowest ? 0 : -1}
    >
      {typing && <kbd>{lettersOf(pitch - lowest, false)}</kbd>}
      {pitch % OCTAVE === 0 && <span>{noteName(pitch)}</span>}
    </button>
  );
  return (
    <div
      ref={box}
      className="keyboard"
      role="group"
      aria-label={`Keys of ${track.name}`}
      style={hueStyle(track.hue)}
      {...played}
      {...handlers}
    >
      {whole.map((pitch, i) => key(pitch, { left: `${i * each}%`, width: `${each}%` }))}
      {pitches.filter(isBetween).map((pitch) => {
        const before = whole.filter((other) => other < pitch).length;
        return key(pitch, { left: `${(before - 0.3) * each}%`, width: `${0.6 * each}%` });
      })}
    </div>
  );
}
