import { useEffect } from "react";
import type { EnvelopePart, Px, RegionPart, Ticks, TrackPart, Window } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { tickToX } from "../../geometry/viewport";
import { drawTrack } from "../../state/drawing";
import { leadTo } from "../../state/lead";
import type { Lookup } from "../../state/lookup";
import { type SongState, useSong } from "../../state/song";
import { useView } from "../../state/view";
import { EnvelopeAside } from "./EnvelopeEditor";

interface Ghost {
  envelope: EnvelopePart;
  region: RegionPart;
  windows: Window[];
}

interface Props {
  track: TrackPart;
  focus: string | null;
  find: Lookup;
  view: [from: Ticks, to: Ticks];
  height: Px;
}

/** What carrier clips on other tracks do to the parameter shown: a ghost of each, with its name, which leads to it. */
export function CarrierGhosts({ track, focus, find, view: [from, to], height }: Props) {
  const windows = useSong((state) => state.windows);
  const clips = useSong((state) => state.model.clips);
  const pxPerTick = useView((state) => state.pxPerTick);
  const rested = useSong((state) => state.rested);
  const ghosts = focus ? ghostsOf(track, focus, find, { windows, clips }) : [];
  const inView = ghosts.filter(
    ({ region }) => region.start_tick < to && region.start_tick + region.length_ticks > from,
  );
  const homes = [...new Set(inView.map(({ region }) => region.owner.slice("track/".length)))].join(" ");
  useEffect(() => {
    for (const id of homes.split(" ")) if (id) drawTrack(id);
  }, [homes]);
  if (inView.length === 0 || !focus) return null;
  return (
    <div className="pointer-events-none absolute inset-0" style={hueStyle(parameterHue(focus))}>
      <svg className="absolute left-0 w-full overflow-visible" height={height} aria-hidden="true">
        {inView.map(({ envelope, region, windows: own }) => (
          <g
            key={`${region.id} ${envelope.id}`}
            className={envelope.on && !region.muted && !rested.includes(envelope.id) ? "ghost" : "ghost off-line"}
          >
            <EnvelopeAside envelope={envelope} windows={own} height={height} line="stitched" />
          </g>
        ))}
      </svg>
      {inView.map(({ envelope, region }) => (
        <button
          key={`${region.id} ${envelope.id}`}
          type="button"
          className="ghost-name pointer-events-auto"
          style={{
            left: tickToX({ pxPerTick }, region.start_tick),
            maxWidth: tickToX({ pxPerTick }, region.length_ticks),
          }}
          title={`The carrier clip ${clips[region.clip_id]?.name} ${envelope.role}s this; press to go there`}
          onClick={() => leadTo(envelope.id, region.id)}
        >
          {clips[region.clip_id]?.name} {envelope.role}s
        </button>
      ))}
    </div>
  );
}

function ghostsOf(
  track: TrackPart,
  focus: string,
  find: Lookup,
  { windows, clips }: { windows: SongState["windows"]; clips: SongState["model"]["clips"] },
): Ghost[] {
  const carried = (find.targets[focus] ?? []).filter(
    ({ owner }) => owner.startsWith("clip/") && clips[owner.slice("clip/".length)]?.kind === "carrier",
  );
  return carried.flatMap((envelope) =>
    (find.placed[envelope.owner.slice("clip/".length)] ?? [])
      .filter((region) => region.owner !== `track/${track.id}`)
      .map((region) => ({ envelope, region, windows: windows[region.id]?.[envelope.id] ?? [] })),
  );
}
