import { Headphones, MoonStar, VolumeX } from "lucide-react";
import type { TrackPart } from "../api/types";
import { type Rester, toggleListening, toggleRest } from "../state/listening";
import { useSong } from "../state/song";

const WAYS = {
  muted: { word: "Mute", Icon: VolumeX, title: "Not heard while listening; no envelope moves this" },
  soloed: {
    word: "Solo",
    Icon: Headphones,
    title: "Only this is heard, with what is soloed too; no envelope moves this",
  },
} as const;

interface Look {
  track: TrackPart;
  /** In words rather than icons. */
  spelled?: boolean;
  /** In a row of the table, which is one Tab stop: arrows lead to them. */
  inRow?: boolean;
}

/** Mute and solo of a track, for listening; what envelopes move is the mute of its channel. */
export function ListenButtons({ track, spelled, inRow }: Look) {
  const solo = track.kind !== "return" && track.kind !== "master";
  return (
    <>
      <ListenButton track={track} what="muted" spelled={spelled} inRow={inRow} />
      {solo && <ListenButton track={track} what="soloed" spelled={spelled} inRow={inRow} />}
    </>
  );
}

/** Whether moves rest for a listen. */
export function RestButton({ owner, words, title }: { owner: Rester; words: string; title: string }) {
  const on = useSong((state) => state.resting.includes(owner));
  return (
    <button
      type="button"
      className={`btn btn-sm grow pointer-coarse:h-11 ${on ? "btn-warning" : ""}`}
      aria-pressed={on}
      title={title}
      onClick={() => void toggleRest(owner)}
    >
      <MoonStar size={14} aria-hidden="true" /> {words}
    </button>
  );
}

/** One of them: an icon that names its track to whoever hears it, or the word itself. */
function ListenButton({ track, what, spelled, inRow }: Look & { what: keyof typeof WAYS }) {
  const on = useSong((state) => state[what].includes(track.id));
  const { word, Icon, title } = WAYS[what];
  const look = spelled
    ? `btn btn-sm grow pointer-coarse:h-11 ${on ? "btn-warning" : ""}`
    : `listen ${on ? "listen-on" : ""}`;
  return (
    <button
      type="button"
      tabIndex={inRow ? -1 : undefined}
      className={look}
      aria-pressed={on}
      aria-label={spelled ? undefined : `${word} ${track.name}`}
      title={title}
      onClick={() => void toggleListening(track.id, what)}
    >
      {spelled ? word : <Icon size={14} aria-hidden="true" />}
    </button>
  );
}
