import { leavingOf } from "../commands/points";
import { useChoice } from "../state/choice";
import { useHand } from "../state/hand";
import { useEnvelopeInHand } from "../state/useShown";
import { setView, useView } from "../state/view";
import { RegionStripDeeds } from "../table/RegionStrip";
import { ShapeDeeds } from "../table/strips/ShapeDeeds";
import { SpanDeeds } from "../table/strips/SpanDeeds";

/** On a phone, above the bottom bar: what is done with the chosen points, span or regions most. */
export function ChoiceBar() {
  const envelope = useEnvelopeInHand();
  const chosen = useChoice((state) => state.chosen);
  const span = useChoice((state) => state.span);
  const regions = useChoice((state) => state.regionIds.length);
  const sheet = useView((state) => state.sheet);
  const busy = useHand((state) => state.hand !== null || state.carry !== null);
  if (busy || sheet) return null;
  const more = (
    <button type="button" className="by-choice px-3" onClick={() => setView({ sheet: "edit" })}>
      more
    </button>
  );
  if (envelope && span)
    return (
      <div className="choice-bar fade-x" role="group" aria-label="The chosen span">
        <SpanDeeds />
        {more}
      </div>
    );
  if (envelope && leavingOf(envelope, chosen).length > 0)
    return (
      <div className="choice-bar fade-x" role="group" aria-label="Shape of the segments after the chosen points">
        <ShapeDeeds envelope={envelope} chosen={chosen} />
        {more}
      </div>
    );
  if (regions === 0 || chosen.length > 0) return null;
  return (
    <div className="choice-bar" role="group" aria-label="The chosen regions">
      <RegionStripDeeds inWords />
    </div>
  );
}
