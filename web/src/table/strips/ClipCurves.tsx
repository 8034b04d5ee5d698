import { useShallow } from "zustand/react/shallow";
import type { EnvelopePart, RegionPart, TrackPart } from "../../api/types";
import { FOLDED_HEIGHT, NAME_HEIGHT, SELECT_HEIGHT } from "../../geometry/heights";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { tickToX } from "../../geometry/viewport";
import { select } from "../../gestures/choosing";
import { findParameter, type Placed } from "../../state/catalogue";
import { inHand, useLayer } from "../../state/layers";
import type { Lookup } from "../../state/lookup";
import { useSong } from "../../state/song";
import { useView } from "../../state/view";
import { useNarrow } from "../../ui/useNarrow";
import { ChoiceStrip } from "../choice/ChoiceStrip";
import { Axis } from "./Axis";
import { EnvelopeAside, EnvelopeEditor } from "./EnvelopeEditor";
import { OwnLength } from "./OwnLength";
import { PastEnd } from "./PastEnd";

interface Props {
  track: TrackPart;
  regions: RegionPart[];
  find: Lookup;
  focus: string | null;
  placed: Placed | null;
  view: [from: number, to: number];
  tall: number;
}

/** The envelopes of a track's clips over their material: one of each clip in hand, the others beside it. */
export function ClipCurves({ track, regions, find, focus, placed, view, tall }: Props) {
  const windows = useSong(
    useShallow(({ windows, preview }) => regions.map(({ id }) => preview?.windows[id] ?? windows[id])),
  );
  const showing = useView((state) => state.showing);
  const pxPerTick = useView((state) => state.pxPerTick);
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const clips = model.clips;
  const narrow = useNarrow();
  const layer = useLayer(track.id, "clip");
  const height = tall - NAME_HEIGHT - 4;
  const at = (envelope: EnvelopePart) => windows.flatMap((one) => one?.[envelope.id] ?? []);
  const byClip = [...new Set(regions.map((region) => region.clip_id))].map(
    (clipId) => find.envelopes[`clip/${clipId}`] ?? [],
  );
  const all = byClip.flat();
  const focused = byClip.map((list) => list.filter((envelope) => envelope.target === focus));
  const hands = focused.flatMap((list) => inHand(list, layer) ?? []);
  const layers = focused.flat().filter((envelope) => !hands.includes(envelope));
  const others = showing === "active" ? [] : all.filter((envelope) => envelope.target !== focus);
  const edited = showing === "all" ? others : [];
  const aside = [...layers, ...(showing === "all" ? [] : others)];
  const onGround = (tick: number) => {
    const region = regions.find((entry) => tick >= entry.start_tick && tick < entry.start_tick + entry.length_ticks);
    if (region) select(region);
  };
  const clipOf = (envelope: EnvelopePart) => clips[envelope.owner.slice("clip/".length)];
  const editor = (envelope: EnvelopePart, own: Placed) => (
    <g key={envelope.id} pointerEvents="auto" style={hueStyle(parameterHue(envelope.target))}>
      <PastEnd envelope={envelope} clip={clipOf(envelope)} windows={at(envelope)} height={height} />
      <EnvelopeEditor
        envelope={envelope}
        windows={at(envelope)}
        height={height}
        name={`${own.entry.name} in ${clipOf(envelope)?.name ?? ""}`}
        line="stitched"
        view={view}
        onGround={onGround}
      />
      {envelope.clock === "own_length" && (
        <OwnLength envelope={envelope} regions={regions} windows={at(envelope)} height={height} name={own.entry.name} />
      )}
    </g>
  );
  return (
    <div className="pointer-events-none absolute left-0 w-full" style={{ top: NAME_HEIGHT, height }}>
      {placed && hands[0] && (
        <Axis
          scale={placed.scale}
          kind={hands[0].role}
          height={height}
          width={tickToX({ pxPerTick }, view[1])}
          clear={FOLDED_HEIGHT - NAME_HEIGHT + (narrow ? SELECT_HEIGHT : 0)}
        />
      )}
      <svg className="absolute left-0 w-full overflow-visible" height={height} aria-label="Clip envelopes">
        {aside.map((envelope) => (
          <g key={envelope.id} style={hueStyle(parameterHue(envelope.target))}>
            <EnvelopeAside envelope={envelope} windows={at(envelope)} height={height} line="stitched" />
          </g>
        ))}
        {edited.map((envelope) => {
          const own = catalogue && findParameter(catalogue, model, envelope.target);
          return own && editor(envelope, own);
        })}
        {placed && hands.map((envelope) => editor(envelope, placed))}
      </svg>
      <div className="pointer-events-auto absolute left-0 w-full" style={{ top: 0 }}>
        {[...edited, ...hands].map((envelope) => (
          <div key={envelope.id} style={hueStyle(parameterHue(envelope.target))}>
            <ChoiceStrip envelope={envelope} windows={at(envelope)} height={height} />
          </div>
        ))}
      </div>
    </div>
  );
}
