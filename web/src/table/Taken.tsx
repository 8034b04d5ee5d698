import { tickToX } from "../geometry/viewport";
import { usePlayIn } from "../state/playIn";
import { useView } from "../state/view";

const NONE: never[] = [];
/** Pitches from here to there fill the height of a row. */
const [LOW, HIGH] = [24, 96];
/** A note that is still held is shown so long. */
const HELD_TICKS = 120;

/** What is being played in, on the row of its track, until it is written into a clip. */
export function Taken({ trackId }: { trackId: string }) {
  const taken = usePlayIn((state) => (state.recording === trackId ? state.taken : NONE));
  const view = useView();
  return taken.map(({ start, end, pitch }) => (
    <i
      key={`${start} ${pitch}`}
      className="taken"
      data-testid="taken"
      style={{
        left: tickToX(view, start),
        width: Math.max(3, tickToX(view, (end ?? start + HELD_TICKS) - start)),
        bottom: `${Math.min(Math.max((pitch - LOW) / (HIGH - LOW), 0.05), 0.9) * 100}%`,
      }}
    />
  ));
}
