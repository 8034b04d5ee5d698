import type { EnvelopePart, Px, Window } from "../../api/types";
import { tickToX } from "../../geometry/viewport";
import { useChoice } from "../../state/choice";
import { useHand } from "../../state/hand";
import { useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { ChoicePlace } from "./ChoicePlace";
import { PointWords } from "./PointWords";

const NONE: number[] = [];

interface Props {
  envelope: EnvelopePart;
  windows: Window[];
  /** How tall the envelope's band is. */
  height: Px;
}

/** Under the band of the chosen points or span: their value, and what is done with them most. */
export function ChoiceStrip({ envelope, windows, height }: Props) {
  const busy = useHand((state) => state.hand !== null);
  const narrow = useNarrow();
  const mine = useChoice((state) => state.envelopeId === envelope.id);
  const chosen = useChoice((state) => (mine ? state.chosen : NONE));
  const span = useChoice((state) => (mine ? state.span : null));
  const from = useChoice((state) => state.windowFrom);
  const pxPerTick = useView((state) => state.pxPerTick);
  const window = windows.find((entry) => entry[0] === from);
  const start = span?.[0] ?? envelope.points[chosen[0]]?.tick;
  if (!mine || busy || narrow || !window || start === undefined) return null;
  const left = tickToX({ pxPerTick }, window[0] + (start - window[2]) / window[3]);
  return (
    <ChoicePlace left={left} height={height} label={span ? "The chosen span" : "The chosen points"}>
      <PointWords envelope={envelope} chosen={chosen} span={span !== null} />
    </ChoicePlace>
  );
}
