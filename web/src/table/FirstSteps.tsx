import { useSong } from "../state/song";
import { useView } from "../state/view";

/** What to do next in a song that has little in it yet; nothing once a move is in a clip. */
export function FirstSteps() {
  const words = useSong(({ model }) => {
    const { tracks, regions, envelopes, clips } = model;
    const own = tracks.filter(({ kind }) => kind === "notes" || kind === "audio");
    if (Object.values(envelopes).some(({ owner }) => owner.startsWith("clip/"))) return null;
    if (own.length === 0) return "Drop a sound here, or add a track at the left: drums, a bass, a preset.";
    if (Object.keys(regions).length === 0)
      return own.some(({ kind }) => kind === "notes")
        ? "Press twice in the row of a track to make a clip there, then draw notes in it; or drop a sound."
        : "Drop a sound in the row of the track.";
    if (Object.values(clips).every(({ notes, audio }) => notes.length === 0 && !audio))
      return "Draw notes in the clip: press where one begins, and drag as long as it lasts.";
    return "Choose a clip by its name, then press the + of a knob at the foot: its move is drawn over the clip.";
  });
  const narrow = useView((state) => state.sheet !== null);
  if (!words || narrow) return null;
  return (
    <p className="faint sticky px-4 py-3" style={{ left: "var(--header-width)" }} role="note">
      {words}
    </p>
  );
}
