import { CopyPlus, Ellipsis, type LucideIcon, Scissors, VolumeX } from "lucide-react";
import type { RegionPart } from "../api/types";
import { tickToX } from "../geometry/viewport";
import { chosenRegions } from "../gestures/choosing";
import { duplicate, mute, splitAtPlayhead } from "../gestures/regions";
import { useChoice } from "../state/choice";
import { keyHint } from "../state/keyMap";
import { setView, useView } from "../state/view";
import { useNarrow } from "../ui/useNarrow";

/** What is done with the chosen regions most. */
const DEEDS: { label: string; title: () => string; Icon: LucideIcon; act: () => void }[] = [
  {
    label: "Duplicate these regions",
    title: () => `Once more, right after itself ${keyHint("again")}`,
    Icon: CopyPlus,
    act: duplicate,
  },
  {
    label: "Split these regions",
    title: () => `Cut in two at the playhead ${keyHint("split")}`,
    Icon: Scissors,
    act: () => chosenRegions().forEach(splitAtPlayhead),
  },
  {
    label: "Mute or unmute these regions",
    title: () => `Neither material nor moves are heard ${keyHint("quiet")}`,
    Icon: VolumeX,
    act: mute,
  },
  {
    label: "Everything else with these regions",
    title: () => "Everything else",
    Icon: Ellipsis,
    act: () => setView({ sheet: "clip", panelOpen: true }),
  },
];

export function RegionStripDeeds() {
  return DEEDS.map(({ label, title, Icon, act }) => (
    <button key={label} type="button" className="by-choice" aria-label={label} title={title()} onClick={act}>
      <Icon size={13} />
    </button>
  ));
}

/** Beside the name of the region at hand: what is done with the chosen ones. */
export function RegionStrip({ regions }: { regions: RegionPart[] }) {
  const regionId = useChoice((state) => state.regionId);
  const narrow = useNarrow();
  const pxPerTick = useView((state) => state.pxPerTick);
  const region = regions.find(({ id }) => id === regionId);
  if (!region || narrow) return null;
  const style = { left: tickToX({ pxPerTick }, region.start_tick), width: tickToX({ pxPerTick }, region.length_ticks) };
  return (
    <div className="region-strip" style={style}>
      <span className="region-deeds" role="group" aria-label="The chosen regions">
        <RegionStripDeeds />
      </span>
    </div>
  );
}
