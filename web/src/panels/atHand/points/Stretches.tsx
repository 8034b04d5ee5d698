import { chosenNow, useChoice } from "../../../state/choice";
import { chooseMany } from "../../../state/choosing";
import { copyStretch, cutStretch, duplicateStretch, fade, pasteStretch } from "../../../state/clipboard";
import { useEnvelopeInHand } from "../../../state/useShown";
import { setView, useView } from "../../../state/view";
import { Do, PositionField, Row } from "../../../ui/Entry";
import { NumberField } from "../../../ui/Fields";

/** One end of the chosen range; the points in it are chosen with it. */
function Place({ end, label }: { end: 0 | 1; label: string }) {
  const envelope = useEnvelopeInHand();
  const span = useChoice((state) => state.span);
  if (!envelope) return null;
  const choose = (tick: number) => {
    const [from, to] = end === 0 ? [tick, Math.max(span?.[1] ?? 0, tick)] : [Math.min(span?.[0] ?? 0, tick), tick];
    const within = envelope.points.flatMap((point, i) => (point.tick >= from && point.tick <= to ? [i] : []));
    chooseMany(envelope.id, within, chosenNow().windowFrom, [from, to]);
  };
  return <PositionField label={label} tick={span?.[end] ?? null} onTick={choose} />;
}

/** What is done with the chosen range, or from the first to the last chosen point. */
export function Stretches() {
  const ready = useChoice((state) => state.span !== null || state.chosen.length > 1);
  const copied = useChoice((state) => state.clipboard !== null && "snippet" in state.clipboard);
  const tolerance = useView((state) => state.tolerance);
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <Place end={0} label="Stretch from" />
        <Place end={1} label="Stretch to" />
      </div>
      <Row title="Stretch">
        <Do words="Copy" off={!ready} onDo={() => void copyStretch()} />
        <Do words="Cut" off={!ready} onDo={() => void cutStretch()} />
        <Do words="Duplicate" off={!ready} onDo={() => void duplicateStretch()} />
        <Do
          words="Paste"
          off={!copied}
          title="At the playhead (Ctrl V); at the pointer with Ctrl Shift V"
          onDo={() => void pasteStretch()}
        />
        <Do words="Paste at half length" off={!copied} onDo={() => void pasteStretch(0.5)} />
      </Row>
      <Row title={ready ? "Fade over the stretch" : "Fade over the first or last bar"}>
        <Do words="Fade in" onDo={() => fade("in")} />
        <Do words="Fade out" onDo={() => fade("out")} />
      </Row>
      <NumberField
        label="Freehand thinned within"
        unit="%"
        value={tolerance * 100}
        min={0}
        max={50}
        onCommit={async (wish) => setView({ tolerance: wish / 100 })}
      />
    </>
  );
}
