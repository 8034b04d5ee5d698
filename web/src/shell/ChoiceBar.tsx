import type { ReactNode } from "react";
import { useChoice } from "../state/choice";
import { useHand } from "../state/hand";
import { useNotes } from "../state/noteChoice";
import { useEnvelopeInHand } from "../state/useShown";
import { useView } from "../state/view";
import { NoteWords } from "../table/choice/NoteStrip";
import { PointWords } from "../table/choice/PointWords";
import { RegionWords } from "../table/choice/RegionStrip";

/** On a phone, above the bottom bar: the value of what is chosen, and what is done with it most. */
export function ChoiceBar() {
  const envelope = useEnvelopeInHand();
  const chosen = useChoice((state) => state.chosen);
  const span = useChoice((state) => state.span !== null);
  const regions = useChoice((state) => state.regionIds.length);
  const notes = useNotes((state) => state.chosen.length);
  const sheet = useView((state) => state.sheet);
  const busy = useHand((state) => state.hand !== null || state.carry !== null);
  if (busy || sheet) return null;
  const bar = (label: string, words: ReactNode) => (
    <div className="choice-bar fade-x" role="group" aria-label={label}>
      {words}
    </div>
  );
  if (notes > 0) return bar("The chosen notes", <NoteWords />);
  if (envelope && (span || chosen.length > 0))
    return bar(
      span ? "The chosen span" : "The chosen points",
      <PointWords envelope={envelope} chosen={chosen} span={span} />,
    );
  return regions > 0 ? bar("The chosen regions", <RegionWords />) : null;
}
