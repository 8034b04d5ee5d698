import { useEffect } from "react";
import type { EnvelopePart, RegionPart, TrackPart } from "../api/types";
import { chainPath } from "../draw/corners";
import { hueStyle, parameterHue } from "../draw/hue";
import { RegionBox } from "../song/RegionBox";
import { drawHeard } from "../song/actions";
import { type Placed, findParameter } from "../song/catalogue";
import type { Lookup } from "../song/lookup";
import type { Model } from "../song/model";
import { useSong } from "../song/store";
import { bandFor, tickToX, valueToY } from "../song/viewport";
import { LaneStrip } from "./LaneStrip";
import { HEARD_HEIGHT, MATERIAL_HEIGHT, NAME_HEIGHT } from "./heights";
import { EnvelopeAside, EnvelopeEditor } from "./EnvelopeEditor";


interface Props {
  track: TrackPart;
  regions: RegionPart[];
  model: Model;
  find: Lookup;
  focus: string | null;
  view: [from: number, to: number];
}

/** What a track shows when unfolded: material with clip envelopes, the lane, and what is heard, on one time axis. */
export function Unfolded({ track, regions, model, find, focus, view }: Props) {
  const catalogue = useSong((state) => state.catalogue);
  const placed = catalogue && focus ? findParameter(catalogue, model.tracks, focus) : null;
  const lanes = find.envelopes[`track/${track.id}`] ?? [];
  const lane = lanes.find((entry) => entry.target === focus);
  useEffect(() => {
    if (focus) void drawHeard([focus]);
  }, [focus, model]);
  return (
    <div style={focus ? hueStyle(parameterHue(focus)) : undefined}>
      {(track.kind === "notes" || track.kind === "audio") && (
        <div className="relative" style={{ height: MATERIAL_HEIGHT, background: "var(--strip)" }} data-testid={`material-${track.id}`}>
          <div style={hueStyle(track.hue)}>
            {regions.map((region) => (
              <RegionBox key={region.id} region={region} clip={model.clips[region.clip_id]} shared={find.sharers[region.clip_id]} height={MATERIAL_HEIGHT} folded={false} view={view} />
            ))}
          </div>
          <ClipCurves regions={regions} find={find} focus={focus} placed={placed} />
        </div>
      )}
      <LaneStrip track={track} lane={lane} placed={placed} view={view} />
      <HeardStrip focus={focus} view={view} />
    </div>
  );
}

function ClipCurves({ regions, find, focus, placed }: { regions: RegionPart[]; find: Lookup; focus: string | null; placed: Placed | null }) {
  const windows = useSong((state) => state.windows);
  const tried = useSong((state) => state.preview?.windows);
  const curves = useSong((state) => state.curves);
  const height = MATERIAL_HEIGHT - NAME_HEIGHT - 4;
  const at = (region: RegionPart, envelope: EnvelopePart) => (tried?.[region.id] ?? windows[region.id])?.[envelope.id] ?? [];
  const clips = [...new Set(regions.map((region) => region.clip_id))];
  return (
    <svg className="pointer-events-none absolute left-0 w-full" style={{ top: NAME_HEIGHT }} height={height} aria-label="Clip envelopes">
      {clips.flatMap((clipId) =>
        (find.envelopes[`clip/${clipId}`] ?? []).map((envelope) => {
          const all = regions.filter((region) => region.clip_id === clipId).flatMap((region) => at(region, envelope));
          if (envelope.target !== focus) {
            return (
              <g key={envelope.id} style={hueStyle(parameterHue(envelope.target))}>
                <EnvelopeAside corners={curves[envelope.id] ?? []} windows={all} height={height} role={envelope.role} />
              </g>
            );
          }
          if (!placed) return null;
          return (
            <g key={envelope.id} pointerEvents="auto">
              <EnvelopeEditor envelope={envelope} windows={all} height={height} name={placed.entry.name} scale={placed.scale} line="stitched" />
            </g>
          );
        }),
      )}
    </svg>
  );
}

function HeardStrip({ focus, view: [from, to] }: { focus: string | null; view: [number, number] }) {
  const heard = useSong((state) => (focus ? (state.preview?.heard[focus] ?? state.heard[focus]) : undefined)) ?? [];
  const pxPerTick = useSong((state) => state.view.pxPerTick);
  const view = { pxPerTick };
  const band = bandFor("set", HEARD_HEIGHT);
  const plot = (tick: number, value: number): [number, number] => [tickToX(view, tick), valueToY(band, value)];
  const edge = chainPath(heard, from, to, plot);
  const foot = HEARD_HEIGHT - 2;
  return (
    <svg className="block w-full border-b border-base-300" height={HEARD_HEIGHT} style={{ background: "var(--strip)" }} aria-label="Heard" data-testid={`heard-${focus}`}>
      {edge && <path d={`${edge}L${tickToX(view, to)} ${foot}L${tickToX(view, from)} ${foot}Z`} className="heard-area" />}
      {edge && <path d={edge} className="heard-edge" />}
    </svg>
  );
}
