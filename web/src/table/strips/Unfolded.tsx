import { useEffect } from "react";
import type { RegionPart, TrackPart } from "../../api/types";
import { hasLanes } from "../../geometry/heights";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { xToTick } from "../../geometry/viewport";
import { findParameter, isHeld } from "../../state/catalogue";
import { drawHeard } from "../../state/drawing";
import { setHand } from "../../state/hand";
import { holdsRegions } from "../../state/holds";
import type { Lookup } from "../../state/lookup";
import type { Model } from "../../state/model";
import { useSong } from "../../state/song";
import { useStrips } from "../../state/useStrips";
import { useView, viewNow } from "../../state/view";
import { RegionBox } from "../RegionBox";
import { Taken } from "../Taken";
import { Writing } from "../Writing";
import { TimeLines } from "./Axis";
import { CarrierGhosts } from "./CarrierGhosts";
import { ClipBars } from "./ClipBars";
import { ClipCurves } from "./ClipCurves";
import { HeardStrip } from "./HeardStrip";
import { LaneStrip } from "./LaneStrip";
import { NoteEditor } from "./NoteEditor";

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
  const placed = catalogue && focus ? findParameter(catalogue, model, focus) : null;
  const strips = useStrips(track.id);
  const notes = useView((state) => state.notes[track.id] ?? false) && track.kind === "notes";
  const held = placed ? isHeld(model, placed) : false;
  const lanes = (find.envelopes[`track/${track.id}`] ?? []).filter((entry) => entry.target === focus);
  // The line that is being written stands on the axis of values, not of amounts.
  const inClips = regions.flatMap(({ clip_id }) => find.envelopes[`clip/${clip_id}`] ?? []);
  const shifted = inClips.some(({ target, role }) => target === focus && role !== "set");
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
                bare={notes}
                view={view}
              />
            ))}
          </div>
          <TimeLines view={view} height={strips.material} />
          <ClipBars regions={regions} clips={model.clips} view={view} height={strips.material} />
          {notes && (
            <div style={hueStyle(track.hue)}>
              <NoteEditor track={track} regions={regions} clips={model.clips} height={strips.material} view={view} />
            </div>
          )}
          {!notes && (
            <ClipCurves
              track={track}
              regions={regions}
              find={find}
              focus={focus}
              placed={placed}
              view={view}
              tall={strips.material}
            />
          )}
          {!notes && <CarrierGhosts track={track} focus={focus} view={view} find={find} height={strips.material} />}
          {focus && !shifted && <Writing addresses={[focus]} height={strips.material} />}
          <Taken trackId={track.id} />
        </div>
      )}
      {hasLanes(track) && (
        <div className="relative">
          <LaneStrip track={track} lanes={lanes} placed={placed} view={view} />
          {focus && !holdsRegions(track) && <Writing addresses={[focus]} height={strips.lane} />}
          {!holdsRegions(track) && (
            <CarrierGhosts track={track} focus={focus} view={view} find={find} height={strips.lane} />
          )}
        </div>
      )}
      <HeardStrip focus={focus} placed={placed} view={view} height={strips.heard} />
    </div>
  );
}
