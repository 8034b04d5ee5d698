import { ChevronDown, ChevronRight, Headphones, MoveVertical, VolumeX } from "lucide-react";
import { memo, useEffect, useMemo } from "react";
import type { EnvelopePart, TrackPart } from "../api/types";
import { FOLDED_HEIGHT, hasLanes, moreLanes } from "../geometry/heights";
import { hueStyle, parameterHue } from "../geometry/hue";
import { pressRaise, raiseKey } from "../gestures/raise";
import { findParameter, isHeld } from "../state/catalogue";
import { chooseRegions, chosenNow, setChoice } from "../state/choice";
import { drawTrack } from "../state/drawing";
import { edit } from "../state/edits";
import { holdsRegions } from "../state/holds";
import type { Lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { song, useSong } from "../state/song";
import { rowRef } from "../state/stage";
import { useStrips } from "../state/useStrips";
import { setView, useView, viewNow } from "../state/view";
import { useNarrow } from "../ui/useNarrow";
import { FoldedCurves } from "./FoldedCurves";
import { toggleFold } from "./folding";
import { RegionBox } from "./RegionBox";
import { RowEdge } from "./RowEdge";
import { LaneStrip } from "./strips/LaneStrip";
import { Unfolded } from "./strips/Unfolded";

const NONE: never[] = [];

interface Props {
  track: TrackPart;
  model: Model;
  find: Lookup;
  view: [from: number, to: number];
  headerWidth: number;
}

/** Whether all that a row shows of the song is the same in two models. */
function alike(a: Props, b: Props): boolean {
  if (a.track !== b.track || a.view !== b.view || a.headerWidth !== b.headerWidth || a.model.tracks !== b.model.tracks)
    return false;
  if (a.model === b.model) return true;
  const owner = `track/${a.track.id}`;
  const regions = b.find.regions[owner] ?? NONE;
  if ((a.find.regions[owner] ?? NONE) !== regions || a.find.envelopes[owner] !== b.find.envelopes[owner]) return false;
  return regions.every(
    ({ clip_id }) =>
      a.model.clips[clip_id] === b.model.clips[clip_id] &&
      a.find.envelopes[`clip/${clip_id}`] === b.find.envelopes[`clip/${clip_id}`] &&
      a.find.sharers[clip_id] === b.find.sharers[clip_id],
  );
}

/** One track of the song: a slim row, or unfolded in place. */
export const TrackRow = memo(function TrackRow({ track, model, find, view, headerWidth }: Props) {
  const placed = useMemo(() => rowRef(track.id), [track.id]);
  const unfolded = useView((state) => state.unfolded.includes(track.id));
  const chosen = useView((state) => state.trackId === track.id);
  const drawn = useSong((state) => state.drawn[track.id]);
  const all = find.regions[`track/${track.id}`] ?? NONE;
  const regions = useMemo(
    () => all.filter((region) => region.start_tick < view[1] && region.start_tick + region.length_ticks > view[0]),
    [all, view],
  );
  const focus = useView((state) => state.focus[track.id]) ?? firstAutomated(track, find);
  const shown = useView((state) => state.shown[track.id]) ?? NONE;
  const pinned = useView((state) => state.pinned[track.id]) ?? NONE;
  const more = moreLanes(find.envelopes[`track/${track.id}`] ?? NONE, unfolded, focus, shown, pinned);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => drawTrack(track.id), [track.id, drawn]);
  return (
    <div
      className="relative flex shrink-0 border-b border-base-300"
      style={hueStyle(track.hue)}
      data-testid={`track-${track.id}`}
      ref={placed}
    >
      <header
        className={`sticky left-0 z-20 flex shrink-0 flex-col border-r border-l-4 border-base-300 ${chosen ? "bg-base-100" : "bg-base-200"}`}
        style={{ width: headerWidth, borderLeftColor: "var(--hue)" }}
      >
        <div className="flex items-center" style={{ height: FOLDED_HEIGHT - 1 }}>
          <button
            type="button"
            className="btn btn-ghost btn-sm btn-square h-[30px]"
            aria-expanded={unfolded}
            aria-label={`${unfolded ? "Fold" : "Unfold"} ${track.name}`}
            onClick={() => toggleFold(track.id)}
          >
            {unfolded ? <ChevronDown size={16} /> : <ChevronRight size={16} />}
          </button>
          <button
            type="button"
            className={`min-w-0 grow truncate pr-2 text-left ${chosen ? "font-bold" : "font-semibold"}`}
            aria-pressed={chosen}
            onClick={() => choose(track.id)}
          >
            {track.name}
            {track.kind !== "notes" && track.kind !== "audio" && track.kind !== "master" && (
              <span className="faint ml-1.5 hidden text-xs font-normal sm:inline">{track.kind}</span>
            )}
          </button>
          <Listened track={track} />
        </div>
        {unfolded && <StripNames track={track} model={model} find={find} focus={focus} />}
      </header>
      {unfolded && <RowEdge track={track} />}
      <div className="relative min-w-0 grow" data-time>
        {unfolded ? (
          <Unfolded track={track} regions={regions} model={model} find={find} focus={focus} view={view} />
        ) : (
          <div className="relative" style={{ height: FOLDED_HEIGHT - 1 }}>
            {regions.map((region) => (
              <RegionBox
                key={region.id}
                region={region}
                clip={model.clips[region.clip_id]}
                shared={find.sharers[region.clip_id]}
                height={FOLDED_HEIGHT - 1}
                folded
                view={view}
              />
            ))}
            <FoldedCurves regions={regions} find={find} view={view} height={FOLDED_HEIGHT - 1} />
          </div>
        )}
        {more.map((lane) => (
          <MoreLane key={lane.id} track={track} lane={lane} model={model} view={view} />
        ))}
      </div>
    </div>
  );
}, alike);

function choose(trackId: string): void {
  setView({ trackId });
  const { regionId } = chosenNow();
  const { model } = song();
  const region = regionId ? model.regions[regionId] : undefined;
  // A carrier clip stays at hand: it moves knobs of any track.
  if (!region || model.clips[region.clip_id].kind !== "carrier") chooseRegions([]);
  setChoice({ chosen: [], span: null });
}

/** What a track shows first: the parameter of its first clip envelope or lane. */
export function firstAutomated(track: TrackPart, find: Lookup): string | null {
  for (const region of find.regions[`track/${track.id}`] ?? NONE) {
    const first = (find.envelopes[`clip/${region.clip_id}`] ?? NONE).find(
      (envelope: EnvelopePart) => !hasLanes(track) || envelope.target.startsWith(`${track.id}/`),
    );
    if (first) return first.target;
  }
  return (
    (find.envelopes[`track/${track.id}`] ?? [])[0]?.target ?? (hasLanes(track) ? `${track.id}/channel/volume` : null)
  );
}

/** Mute and solo for listening, on a screen with room for them; else a word where a track is not heard. */
function Listened({ track }: { track: TrackPart }) {
  const silent = useSong((state) => state.silent.includes(track.id));
  const narrow = useNarrow();
  if (narrow || track.kind === "carrier") return silent ? <span className="faint mr-1 text-xs">not heard</span> : null;
  const listen = (change: { muted?: boolean; soloed?: boolean }) =>
    void edit("listen_track", { track_id: track.id, ...change });
  return (
    <>
      {silent && !track.muted && <span className="faint mr-1 text-xs">not heard</span>}
      <button
        type="button"
        className={`listen ${track.muted ? "listen-on" : ""}`}
        aria-pressed={track.muted ?? false}
        aria-label={`Mute ${track.name}`}
        title="Not heard while listening; no envelope moves this"
        onClick={() => listen({ muted: !track.muted })}
      >
        <VolumeX size={14} aria-hidden="true" />
      </button>
      {track.kind !== "return" && track.kind !== "master" && (
        <button
          type="button"
          className={`listen ${track.soloed ? "listen-on" : ""}`}
          aria-pressed={track.soloed ?? false}
          aria-label={`Solo ${track.name}`}
          title="Only this is heard, with what is soloed too; no envelope moves this"
          onClick={() => listen({ soloed: !track.soloed })}
        >
          <Headphones size={14} aria-hidden="true" />
        </button>
      )}
    </>
  );
}

/** The word beside the lane in focus, and the grip that raises or lowers all of it. */
interface LaneNameProps {
  track: TrackPart;
  find: Lookup;
  focus: string | null;
  /** " waits" while a hand holds the knob, else nothing. */
  waits: string;
  top: number;
}

function LaneName({ track, find, focus, waits, top }: LaneNameProps) {
  const lane = (find.envelopes[`track/${track.id}`] ?? []).find((entry) => entry.target === focus);
  const catalogue = useSong((state) => state.catalogue);
  const tracks = useSong((state) => state.model.tracks);
  const placed = focus && catalogue ? findParameter(catalogue, tracks, focus) : null;
  const trims = lane?.fader === "trim" && lane.role === "set";
  return (
    <p className="faint absolute left-3 flex items-center gap-1 text-xs" style={{ top }}>
      {trims ? "lane + fader" : "lane"}
      {waits}
      {lane && placed && !placed.scale.set_only && lane.points.length > 0 && (
        <button
          type="button"
          className="btn btn-ghost btn-xs h-6 min-h-6 touch-none cursor-ns-resize px-1 font-normal pointer-coarse:h-10"
          aria-label={`Raise or lower all of the lane of ${placed.entry.name}`}
          title="Drag up or down: all of the lane"
          onPointerDown={(event) => pressRaise(event, lane, placed.scale)}
          onKeyDown={(event) => raiseKey(event, lane, placed.scale)}
        >
          <MoveVertical size={12} />
        </button>
      )}
    </p>
  );
}

/** A lane besides the one in focus: shown, or pinned. */
function MoreLane({
  track,
  lane,
  model,
  view,
}: {
  track: TrackPart;
  lane: EnvelopePart;
  model: Model;
  view: [number, number];
}) {
  const catalogue = useSong((state) => state.catalogue);
  const placed = catalogue ? findParameter(catalogue, model.tracks, lane.target) : null;
  return (
    <div style={hueStyle(parameterHue(lane.target))}>
      <LaneStrip track={track} lane={lane} placed={placed} view={view} named />
    </div>
  );
}

function StripNames({
  track,
  model,
  find,
  focus,
}: {
  track: TrackPart;
  model: Model;
  find: Lookup;
  focus: string | null;
}) {
  const catalogue = useSong((state) => state.catalogue);
  const narrow = useNarrow();
  const clipIds = (find.regions[`track/${track.id}`] ?? NONE).map((region) => region.clip_id);
  const owners = [`track/${track.id}`, ...new Set(clipIds.map((id) => `clip/${id}`))];
  const targets = [
    ...new Set([
      ...(focus ? [focus] : []),
      ...owners.flatMap((owner) => find.envelopes[owner] ?? []).map((envelope) => envelope.target),
    ]),
  ];
  const shown = focus && catalogue ? findParameter(catalogue, model.tracks, focus) : null;
  const waits = shown && isHeld(model.tracks, shown) ? " waits" : "";
  const holds = holdsRegions(track);
  const { material, lane, heard } = useStrips(track.id);
  const laneTop = holds ? material : 0;
  const heardTop = laneTop + (hasLanes(track) ? lane : 0);
  const name = (address: string) => {
    const placed = catalogue && findParameter(catalogue, model.tracks, address);
    if (!placed) return address;
    return narrow ? placed.entry.name : `${placed.device} ${placed.entry.name.toLowerCase()}`;
  };
  return (
    <div className="relative grow">
      <select
        className="select select-xs ml-2 w-[calc(100%-66px)] truncate pr-7 pl-1.5"
        aria-label={`Parameter shown on ${track.name}`}
        value={focus ?? ""}
        onChange={(event) => setView({ focus: { ...viewNow().focus, [track.id]: event.target.value } })}
      >
        {targets.sort().map((address) => (
          <option key={address} value={address}>
            {name(address)}
          </option>
        ))}
      </select>
      {holds && (
        <p className="faint absolute left-3 text-xs" style={{ top: material - FOLDED_HEIGHT - 24 }}>
          clip{waits}
        </p>
      )}
      {hasLanes(track) && (
        <LaneName
          track={track}
          find={find}
          focus={focus}
          waits={waits}
          top={laneTop + lane / 2 - FOLDED_HEIGHT - 8 + (holds ? 0 : 30)}
        />
      )}
      <p className="faint absolute left-3 text-xs" style={{ top: heardTop + heard / 2 - FOLDED_HEIGHT - 6 }}>
        heard
      </p>
    </div>
  );
}
