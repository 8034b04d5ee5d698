import type { EnvelopePart } from "../api/types";
import { inHand, type Level, layersOf, takeLayer, turnLayer, useLayer } from "../state/layers";
import { useNarrow } from "../ui/useNarrow";

interface Props {
  trackId: string;
  level: Level;
  envelopes: EnvelopePart[];
  /** What they move. */
  name: string;
}

/** Which of the envelopes that lie over each other is in hand; nothing where there is one. */
export function LayerSwitch({ trackId, level, envelopes, name }: Props) {
  const wanted = useLayer(trackId, level);
  const narrow = useNarrow();
  const layers = layersOf(envelopes);
  const now = inHand(envelopes, wanted)?.role;
  if (layers.length < 2 || !now) return null;
  if (narrow)
    return (
      <button
        type="button"
        tabIndex={-1}
        className="layer layer-on pointer-coarse:h-11"
        aria-label={`Layer of ${name} in hand: ${now}; the next of ${layers.length}`}
        onClick={() => turnLayer(trackId, level, envelopes)}
      >
        {now} {layers.indexOf(now) + 1}/{layers.length}
      </button>
    );
  return (
    <span className="flex" role="group" aria-label={`Layers of ${name} in the ${level}`}>
      {layers.map((role) => (
        <button
          key={role}
          type="button"
          tabIndex={-1}
          className={`layer ${role === now ? "layer-on" : ""}`}
          aria-pressed={role === now}
          title={role === now ? "In hand" : `Take the one that ${role}s in hand`}
          onClick={() => takeLayer(trackId, level, role)}
        >
          {role}
        </button>
      ))}
    </span>
  );
}
