import type { EnvelopePart } from "../../../api/types";
import { useChoice } from "../../../state/choice";
import { ROLES } from "../../../state/layers";
import { leadTo } from "../../../state/lead";

/** Envelopes of one parameter over each other in one place: which of them is in hand. */
export function LayerChoice({ layers, envelope }: { layers: EnvelopePart[]; envelope: EnvelopePart }) {
  const regionId = useChoice((state) => state.regionId);
  if (layers.length < 2) return null;
  const inClip = envelope.owner.startsWith("clip/");
  return (
    <div className="flex flex-wrap items-center gap-1" role="group" aria-label="Layers">
      <span className="faint text-xs">Layers</span>
      {ROLES.flatMap((role) => layers.filter((layer) => layer.role === role)).map((layer) => (
        <button
          key={layer.id}
          type="button"
          className={`layer ${layer.id === envelope.id ? "layer-on" : ""} ${layer.on ? "" : "opacity-60"}`}
          aria-pressed={layer.id === envelope.id}
          onClick={() => leadTo(layer.id, inClip ? regionId : null)}
        >
          {layer.role}
          {layer.on ? "" : " (off)"}
        </button>
      ))}
    </div>
  );
}
