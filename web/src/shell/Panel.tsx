import { KnobStrip } from "../panels/knobs/KnobStrip";
import { useAddress } from "../state/atHand";
import type { PanelName } from "../state/view";
import { Guard } from "../ui/Guard";
import { fetchLater, Later, Part } from "../ui/later";
import { AllPanel } from "./AllPanel";

// The knobs come with the page; a panel when it is opened, or while nothing else is done.
const PARTS = {
  "at-hand": new Part(async () => (await import("../panels/atHand/AtHandPanel")).AtHandPanel),
  clip: new Part(async () => (await import("../panels/clip/ClipPanel")).ClipPanel),
  ends: new Part(async () => (await import("../panels/EndsPanel")).EndsPanel),
  find: new Part(async () => (await import("../panels/Finder")).Finder),
  hand: new Part(async () => (await import("../panels/hand/HandOverPanel")).HandOverPanel),
  hands: new Part(async () => (await import("../panels/hands/HandsPanel")).HandsPanel),
  keys: new Part(async () => (await import("../panels/keys/KeysPanel")).KeysPanel),
  mixer: new Part(async () => (await import("../panels/mixer/Mixer")).Mixer),
  takes: new Part(async () => (await import("../panels/takes/TakesPanel")).TakesPanel),
  track: new Part(async () => (await import("../panels/track/TrackPanel")).TrackPanel),
  versions: new Part(async () => (await import("../panels/VersionsPanel")).VersionsPanel),
  song: new Part(async () => (await import("./SongPanel")).SongPanel),
};
const SATCHEL = new Part(async () => (await import("../panels/satchel/SatchelPanel")).SatchelPanel);

/** Fetches what a panel shows, beside the song. */
export const fetchPanel = (name: keyof typeof PARTS) => void PARTS[name].fetch().catch(() => {});

/** Fetches the panels that are not here yet. */
export const fetchPanels = () => fetchLater([...Object.values(PARTS), SATCHEL]);

/** What a panel or a sheet holds. */
export const Panel = ({ name }: { name: PanelName }) => (
  <Guard key={name} what="This panel">
    <Held name={name} />
  </Guard>
);

function Held({ name }: { name: PanelName }) {
  const focus = useAddress();
  switch (name) {
    case "all":
      return <AllPanel />;
    case "knobs":
      return <KnobStrip />;
    case "satchel":
      return <Later part={SATCHEL} props={{ focus }} />;
    default:
      return <Later key={name} part={PARTS[name]} props={{}} />;
  }
}
