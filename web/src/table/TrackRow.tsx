import { memo, useEffect, useMemo } from "react";
import type { EnvelopePart, TrackPart } from "../api/types";
import { FOLDED_HEIGHT, moreLanes, rowHeight } from "../geometry/heights";
import { hueStyle, parameterHue } from "../geometry/hue";
import { findParameter } from "../state/catalogue";
import { drawTrack } from "../state/drawing";
import { firstAutomated } from "../state/focus";
import { holdsRegions } from "../state/holds";
import type { Lookup } from "../state/lookup";
import type { Model } from "../state/model";
import { useSong } from "../state/song";
import { rowRef } from "../state/stage";
import { useStrips } from "../state/useStrips";
import { useView } from "../state/view";
import { NoteStrip } from "./choice/NoteStrip";
import { RegionStrip } from "./choice/RegionStrip";
import { EmptyStrip } from "./EmptyStrip";
import { FoldedRow } from "./FoldedRow";
import { RegionBox } from "./RegionBox";
import { RowEdge } from "./RowEdge";
import { RowHeader } from "./RowHeader";
import { LaneStrip } from "./strips/LaneStrip";
import { Unfolded } from "./strips/Unfolded";
import { Taken } from "./Taken";
import { WritingRow } from "./Writing";

const NONE: never[] = [];

interface Props {
  track: TrackPart;
  model: Model;
  find: Lookup;
  view: [from: number, to: number];
  headerWidth: number;
}

/** What rows show of other tracks: what they are called, and where they lead. */
const sameFromAfar = (a: TrackPart, b: TrackPart): boolean =>
  a === b || (a.id === b.id && a.name === b.name && a.kind === b.kind && a.output === b.output && a.hue === b.hue);

/** Whether all that a row shows of the song is the same in two models. */
function alike(a: Props, b: Props): boolean {
  if (a.track !== b.track || a.view !== b.view || a.headerWidth !== b.headerWidth) return false;
  if (a.model === b.model) return true;
  const [tracks, others] = [a.model.tracks, b.model.tracks];
  if (tracks !== others && !(tracks.length === others.length && tracks.every((one, i) => sameFromAfar(one, others[i]))))
    return false;
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
  const drawn = useSong((state) => state.drawn[track.id]);
  const all = find.regions[`track/${track.id}`] ?? NONE;
  const regions = useMemo(
    () => all.filter((region) => region.start_tick < view[1] && region.start_tick + region.length_ticks > view[0]),
    [all, view],
  );
  const strips = useStrips(track.id);
  const focus = useView((state) => state.focus[track.id]) ?? firstAutomated(track, find, model);
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
      <RowHeader track={track} model={model} find={find} focus={focus} width={headerWidth} />
      {unfolded && <RowEdge id={track.id} name={track.name} usual={rowHeight(track, holdsRegions(track), true, 0)} />}
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
            <FoldedRow
              regions={regions}
              clips={model.clips}
              find={find}
              view={view}
              height={FOLDED_HEIGHT - 1}
              hue={track.hue}
            />
            <WritingRow trackId={track.id} />
            <Taken trackId={track.id} />
          </div>
        )}
        <RegionStrip regions={regions} height={unfolded ? strips.material : FOLDED_HEIGHT - 1} />
        {unfolded && <NoteStrip regions={regions} height={strips.material} />}
        {all.length === 0 && track.kind === "notes" && <EmptyStrip trackId={track.id} name={track.name} />}
        {more.map((lane) => (
          <MoreLane key={lane.id} track={track} lane={lane} model={model} view={view} />
        ))}
      </div>
    </div>
  );
}, alike);
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
  const placed = catalogue ? findParameter(catalogue, model, lane.target) : null;
  return (
    <div style={hueStyle(parameterHue(lane.target))}>
      <LaneStrip track={track} lanes={[lane]} placed={placed} view={view} named />
    </div>
  );
}
