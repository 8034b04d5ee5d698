import { useEffect } from "react";
import type { Conflict, Corners, EnvelopePart, RegionPart, TrackPart, Window } from "../../api/types";
import { FOLDED_HEIGHT, hasLanes, NAME_HEIGHT } from "../../geometry/heights";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { bandFor, positionText, tickToX, valueToY, xToTick } from "../../geometry/viewport";
import { select } from "../../gestures/choosing";
import { player } from "../../sound/player";
import { findParameter, isHeld, type Placed } from "../../state/catalogue";
import { drawHeard } from "../../state/drawing";
import { setHand } from "../../state/hand";
import { holdsRegions } from "../../state/holds";
import type { Lookup } from "../../state/lookup";
import type { Model } from "../../state/model";
import { useSong } from "../../state/song";
import { useStrips } from "../../state/useStrips";
import { setView, useView, viewNow } from "../../state/view";
import { CurvePath } from "../CurvePath";
import { RegionBox } from "../RegionBox";
import { Axis, TimeLines } from "./Axis";
import { EnvelopeAside, EnvelopeEditor } from "./EnvelopeEditor";
import { LaneStrip } from "./LaneStrip";
import { OwnLength } from "./OwnLength";
import { ShapeStrip } from "./ShapeStrip";

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
  const strips = useStrips(track.id);
  const held = placed ? isHeld(model.tracks, placed) : false;
  const lane = (find.envelopes[`track/${track.id}`] ?? []).find((entry) => entry.target === focus);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => {
    if (focus) drawHeard([focus]);
  }, [focus, model]);
  return (
    <div
      className={held ? "waiting" : undefined}
      style={focus ? hueStyle(parameterHue(focus)) : undefined}
      onPointerMove={(event) =>
        viewNow().sumAtPointer &&
        setHand({
          pointer: Math.max(
            0,
            Math.round(xToTick(viewNow(), event.clientX - event.currentTarget.getBoundingClientRect().left)),
          ),
        })
      }
    >
      {holdsRegions(track) && (
        <div
          className="relative"
          style={{ height: strips.material, background: "var(--strip)" }}
          data-testid={`material-${track.id}`}
        >
          <div style={hueStyle(track.hue)}>
            {regions.map((region) => (
              <RegionBox
                key={region.id}
                region={region}
                clip={model.clips[region.clip_id]}
                shared={find.sharers[region.clip_id]}
                height={strips.material}
                folded={false}
                view={view}
              />
            ))}
          </div>
          <TimeLines view={view} height={strips.material} />
          <ClipCurves regions={regions} find={find} focus={focus} placed={placed} view={view} tall={strips.material} />
        </div>
      )}
      {hasLanes(track) && <LaneStrip track={track} lane={lane} placed={placed} view={view} />}
      <HeardStrip focus={focus} placed={placed} view={view} height={strips.heard} />
    </div>
  );
}

function ClipCurves({
  regions,
  find,
  focus,
  placed,
  view,
  tall,
}: {
  regions: RegionPart[];
  find: Lookup;
  focus: string | null;
  placed: Placed | null;
  view: [number, number];
  tall: number;
}) {
  const windows = useSong((state) => state.windows);
  const tried = useSong((state) => state.preview?.windows);
  const showing = useView((state) => state.showing);
  const pxPerTick = useView((state) => state.pxPerTick);
  const catalogue = useSong((state) => state.catalogue);
  const tracks = useSong((state) => state.model.tracks);
  const clips = useSong((state) => state.model.clips);
  const height = tall - NAME_HEIGHT - 4;
  const at = (envelope: EnvelopePart) =>
    regions.flatMap((region) => (tried?.[region.id] ?? windows[region.id])?.[envelope.id] ?? []);
  const all = [...new Set(regions.map((region) => region.clip_id))].flatMap(
    (clipId) => find.envelopes[`clip/${clipId}`] ?? [],
  );
  const mine = all.filter((envelope) => envelope.target === focus);
  const others = showing === "active" ? [] : all.filter((envelope) => envelope.target !== focus);
  const onGround = (tick: number) => {
    const region = regions.find((entry) => tick >= entry.start_tick && tick < entry.start_tick + entry.length_ticks);
    if (region) select(region);
  };
  const clipOf = (envelope: EnvelopePart) => clips[envelope.owner.slice("clip/".length)]?.name ?? "";
  const editor = (envelope: EnvelopePart, own: Placed) => (
    <g key={envelope.id} pointerEvents="auto" style={hueStyle(parameterHue(envelope.target))}>
      <EnvelopeEditor
        envelope={envelope}
        windows={at(envelope)}
        height={height}
        name={`${own.entry.name} in ${clipOf(envelope)}`}
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
      {placed && mine[0] && (
        <Axis
          scale={placed.scale}
          kind={mine[0].role}
          height={height}
          width={tickToX({ pxPerTick }, view[1])}
          clear={FOLDED_HEIGHT - NAME_HEIGHT}
        />
      )}
      <svg className="absolute left-0 w-full overflow-visible" height={height} aria-label="Clip envelopes">
        {others.map((envelope) => {
          const own = showing === "all" && catalogue ? findParameter(catalogue, tracks, envelope.target) : null;
          if (own) return editor(envelope, own);
          return (
            <g key={envelope.id} style={hueStyle(parameterHue(envelope.target))}>
              <EnvelopeAside envelope={envelope} windows={at(envelope)} height={height} />
            </g>
          );
        })}
        {placed && mine.map((envelope) => editor(envelope, placed))}
      </svg>
      <div className="pointer-events-auto absolute left-0 w-full" style={{ top: 0 }}>
        {(showing === "all" ? all : mine).map((envelope) => (
          <div key={envelope.id} style={hueStyle(parameterHue(envelope.target))}>
            <ShapeStrip envelope={envelope} windows={at(envelope)} top={height + 4} />
          </div>
        ))}
      </div>
    </div>
  );
}

const NO_CORNERS: Corners = [];

interface HeardProps {
  focus: string | null;
  placed: Placed | null;
  view: [number, number];
  height: number;
}

function HeardStrip({ focus, placed, view: [from, to], height }: HeardProps) {
  const still = useSong((state) => (focus ? state.heard[focus] : undefined)) ?? NO_CORNERS;
  const tried = useSong((state) => (focus ? state.preview?.heard[focus] : undefined));
  const patches = useSong((state) => (focus ? state.preview?.patches?.heard[focus] : undefined));
  const pxPerTick = useView((state) => state.pxPerTick);
  const view = { pxPerTick };
  const band = bandFor("set", height);
  const plot = (tick: number, value: number): [number, number] => [tickToX(view, tick), valueToY(band, value)];
  const chain = { still, tried, patches, window: [from, to, from, 1] as Window, plot, scale: `${pxPerTick} ${height}` };
  return (
    <div className="relative" style={{ height }}>
      <svg
        className="absolute inset-0 block w-full border-b border-base-300"
        height={height}
        style={{ background: "var(--strip)" }}
        aria-label="Heard"
        data-testid={`heard-${focus}`}
      >
        <CurvePath {...chain} className="heard-area" foot={height - 2} />
        <CurvePath {...chain} className="heard-edge" />
      </svg>
      {placed && <Axis scale={placed.scale} kind="set" height={height} width={tickToX(view, to)} />}
      <ConflictMarks focus={focus} view={[from, to]} />
    </div>
  );
}

const NO_CONFLICTS: Conflict[] = [];

/** Where two clip envelopes set the parameter at once; a press leads to the sum there, where it can be settled. */
function ConflictMarks({ focus, view: [from, to] }: { focus: string | null; view: [number, number] }) {
  const conflicts = useSong((state) => (focus ? state.conflicts[focus] : undefined)) ?? NO_CONFLICTS;
  const pxPerTick = useView((state) => state.pxPerTick);
  const meter = useSong((state) => state.model.head.meter);
  return conflicts
    .filter((conflict) => conflict[0] < to && conflict[1] > from)
    .map(([start, end]) => (
      <button
        key={`${start} ${end}`}
        type="button"
        className="conflict absolute top-0 h-3.5 cursor-pointer overflow-hidden rounded-sm text-left text-xs leading-3.5"
        style={{ left: tickToX({ pxPerTick }, start), width: Math.max(8, tickToX({ pxPerTick }, end - start)) }}
        title={`Two clip envelopes set this from ${positionText(meter, start)} to ${positionText(meter, end)}; only one is heard. Press to settle it.`}
        aria-label={`Two set this: settle it at ${positionText(meter, start)}`}
        onClick={() => {
          player.seek(start);
          setView({ sheet: "sum" });
        }}
      >
        <span className="sticky px-1" style={{ left: "var(--header-width)" }}>
          two set this
        </span>
      </button>
    ));
}
