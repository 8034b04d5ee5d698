import { ClipPanel } from "../panels/clip/ClipPanel";
import { EndsPanel } from "../panels/EndsPanel";
import { EditPanel } from "../panels/edit/EditPanel";
import { Finder } from "../panels/Finder";
import { HandOverPanel } from "../panels/hand/HandOverPanel";
import { HandsPanel } from "../panels/hands/HandsPanel";
import { KeysPanel } from "../panels/keys/KeysPanel";
import { KnobStrip } from "../panels/knobs/KnobStrip";
import { Mixer } from "../panels/mixer/Mixer";
import { SatchelPanel } from "../panels/satchel/SatchelPanel";
import { SumPanel } from "../panels/sum/SumPanel";
import { TakesPanel } from "../panels/takes/TakesPanel";
import { TrackPanel } from "../panels/track/TrackPanel";
import { VersionsPanel } from "../panels/VersionsPanel";
import { firstAutomated } from "../state/focus";
import { useSong } from "../state/song";
import { useShown } from "../state/useShown";
import { type PanelName, useView } from "../state/view";
import { SongPanel } from "./SongPanel";

/** The parameter whose sum is shown: the focus of the selected track. */
function useFocus(): string | null {
  const { find, model } = useShown();
  const trackId = useView((state) => state.trackId);
  const focus = useView((state) => (trackId ? state.focus[trackId] : null));
  const track = useSong((state) => state.model.tracks.find((entry) => entry.id === trackId));
  return focus ?? (track ? firstAutomated(track, find, model) : null);
}

/** What a panel or a sheet holds. */
export function Panel({ name }: { name: PanelName }) {
  const focus = useFocus();
  switch (name) {
    case "knobs":
      return <KnobStrip />;
    case "mixer":
      return <Mixer />;
    case "keys":
      return <KeysPanel />;
    case "edit":
      return <EditPanel />;
    case "find":
      return <Finder />;
    case "clip":
      return <ClipPanel />;
    case "track":
      return <TrackPanel />;
    case "hands":
      return <HandsPanel />;
    case "ends":
      return <EndsPanel />;
    case "versions":
      return <VersionsPanel />;
    case "hand":
      return <HandOverPanel />;
    case "satchel":
      return <SatchelPanel focus={focus} />;
    case "takes":
      return <TakesPanel />;
    case "song":
      return <SongPanel />;
    case "sum":
      return <SumPanel address={focus} />;
  }
}
