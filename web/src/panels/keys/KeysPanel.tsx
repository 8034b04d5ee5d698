import { useEffect } from "react";
import { readInputs } from "../../gestures/inputs";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { Keyboard } from "./Keyboard";
import { Pads } from "./Pads";
import { kitOf } from "./pitches";
import { WaysToPlay } from "./WaysToPlay";

/** Keys on the screen for the track at hand, and how what is played is recorded. */
export function KeysPanel() {
  const trackId = useView((state) => state.trackId);
  const catalogue = useSong((state) => state.catalogue);
  const track = useSong((state) => state.model.tracks.find(({ id }) => id === trackId));
  const narrow = useNarrow();
  useEffect(() => void readInputs(), []);
  const kit = kitOf(catalogue, track);
  if (track?.kind !== "notes")
    return (
      <p className="faint p-4 text-sm">
        Choose a track of notes to play it: press its name. The + under the tracks makes a new one.
      </p>
    );
  return (
    <div className={narrow ? "flex h-full flex-col" : "flex h-full"}>
      <WaysToPlay track={track} narrow={narrow} />
      <div className="min-h-0 min-w-0 grow p-2">
        {kit ? <Pads track={track} kit={kit} /> : <Keyboard track={track} />}
      </div>
    </div>
  );
}
