import { Plus } from "lucide-react";
import type { EnvelopePart, TrackPart } from "../../api/types";
import { tickToX } from "../../geometry/viewport";
import type { Placed } from "../../state/catalogue";
import { moveOf, ownClip } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { inHand, useLayer } from "../../state/layers";
import { songEnd } from "../../state/model";
import { useSong } from "../../state/song";
import { useStrips } from "../../state/useStrips";
import { useView } from "../../state/view";
import { ChoiceStrip } from "../choice/ChoiceStrip";
import { Axis, TimeLines } from "./Axis";
import { EnvelopeAside, EnvelopeEditor } from "./EnvelopeEditor";

/** The lanes of a parameter, one of them in hand; or how to make one. */
export function LaneStrip({
  track,
  lanes,
  placed,
  view,
  named = false,
  row = track.id,
}: {
  track: TrackPart;
  lanes: EnvelopePart[];
  placed: Placed | null;
  view: [number, number];
  named?: boolean;
  /** The row whose height it has. */
  row?: string;
}) {
  const own = useSong(({ model }) =>
    placed && !moveOf(model, placed.address) ? ownClip(model, placed.address) : null,
  );
  const lane = inHand(lanes, useLayer(track.id, "lane"));
  const end = useSong((state) => Math.max(songEnd(state.model), view[1]));
  const pxPerTick = useView((state) => state.pxPerTick);
  const { lane: height } = useStrips(row);
  return (
    <div
      className="relative border-t border-b border-base-300"
      style={{ height, background: "var(--strip)" }}
      data-testid={named ? `lane-${lane?.target}` : `lane-${track.id}`}
    >
      <TimeLines view={view} height={height} />
      {lane && placed && (
        <>
          <Axis scale={placed.scale} kind={lane.role} height={height} width={tickToX({ pxPerTick }, view[1])} />
          <svg
            className="absolute inset-0 w-full overflow-visible"
            height={height}
            aria-label={`Lane of ${placed.entry.name}`}
          >
            {lanes
              .filter((other) => other !== lane)
              .map((other) => (
                <EnvelopeAside
                  key={other.id}
                  envelope={other}
                  windows={[[0, Math.max(end, view[0] + 1), 0, 1]]}
                  height={height}
                  line="solid-line"
                />
              ))}
            <EnvelopeEditor
              envelope={lane}
              windows={[[0, Math.max(end, view[0] + 1), 0, 1]]}
              height={height}
              name={`${placed.entry.name} lane`}
              line="solid-line"
              view={view}
            />
          </svg>
          <ChoiceStrip envelope={lane} windows={[[0, end, 0, 1]]} height={height} />
        </>
      )}
      {named && placed && (
        <span
          className="hue axis-text pointer-events-none sticky z-10 text-xs font-semibold"
          style={{ left: "calc(var(--header-width) + 8px)" }}
        >
          {placed.entry.name}
        </span>
      )}
      {!lane && placed && own && (
        <p className="faint sticky left-48 mt-5 w-max px-2 text-xs">
          {placed.entry.name} is an effect of {own.name}: the clip moves it, and carriers do.
        </p>
      )}
      {!lane && placed?.entry.automatable && !own && (
        <button
          type="button"
          className="btn btn-ghost btn-xs sticky left-48 mt-5"
          onClick={() => void edit("add_lane", { address: placed.address })}
        >
          <Plus size={14} aria-hidden="true" /> Add a lane for {placed.entry.name}
        </button>
      )}
    </div>
  );
}
