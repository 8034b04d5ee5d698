import type { Px, RegionPart } from "../../api/types";
import { REGION_COMMANDS } from "../../commands";
import { tickToX } from "../../geometry/viewport";
import { useChoice } from "../../state/choice";
import { useHand } from "../../state/hand";
import { useNotes } from "../../state/noteChoice";
import { useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { ChoicePlace } from "./ChoicePlace";
import { ChoiceWords } from "./ChoiceWords";

const COMMON = REGION_COMMANDS.filter(({ common }) => common);

/** What is done with the chosen regions most. */
export const RegionWords = () => <ChoiceWords list={COMMON} subject={{ kind: "regions" }} />;

/** Under the region at hand. */
export function RegionStrip({ regions, height }: { regions: RegionPart[]; height: Px }) {
  const regionId = useChoice((state) => state.regionId);
  const other = useChoice((state) => state.chosen.length > 0 || state.span !== null);
  const notes = useNotes((state) => state.chosen.length > 0);
  const busy = useHand((state) => state.hand !== null || state.carry !== null);
  const narrow = useNarrow();
  const pxPerTick = useView((state) => state.pxPerTick);
  const region = regions.find(({ id }) => id === regionId);
  if (!region || narrow || busy || other || notes) return null;
  return (
    <ChoicePlace left={tickToX({ pxPerTick }, region.start_tick)} height={height} label="The chosen regions">
      <RegionWords />
    </ChoicePlace>
  );
}
