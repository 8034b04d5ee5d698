import { Eye, EyeOff, Pin, PinOff } from "lucide-react";
import type { EnvelopePart, TrackPart } from "../../api/types";
import { hueStyle, parameterHue } from "../../geometry/hue";
import { findParameter, type Placed } from "../../state/catalogue";
import { stretchNow } from "../../state/choosing";
import { editAsking } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { holdsRegions } from "../../state/holds";
import { useSong } from "../../state/song";
import { setLane, useView } from "../../state/view";
import { Typed } from "../../ui/Entry";
import { FaderChoice } from "./FaderChoice";

const NONE: string[] = [];

/** The lanes of a track: shown, pinned, packed, raised. */
export function Lanes({ track, lanes }: { track: TrackPart; lanes: EnvelopePart[] }) {
  const catalogue = useSong((state) => state.catalogue);
  const model = useSong((state) => state.model);
  const placed = (lane: EnvelopePart) => catalogue && findParameter(catalogue, model, lane.target);
  return (
    <div>
      <h4 className="faint text-xs">Lanes</h4>
      {lanes.length === 0 && (
        <p className="faint text-xs">None yet: with no region chosen, the + of a knob makes one.</p>
      )}
      <ul className="flex flex-col gap-1.5">
        {lanes.map((lane) => {
          const own = placed(lane);
          return own && <LaneEntry key={lane.id} track={track} lane={lane} placed={own} />;
        })}
      </ul>
    </div>
  );
}

function LaneEntry({ track, lane, placed }: { track: TrackPart; lane: EnvelopePart; placed: Placed }) {
  const shown = useView((state) => (state.shown[track.id] ?? NONE).includes(lane.target));
  const pinned = useView((state) => (state.pinned[track.id] ?? NONE).includes(lane.target));
  const range = useSong((state) => state.model.head.range);
  const name = placed.entry.name;
  const pack = () => {
    const [from, to] = stretchNow() ?? [range.start_tick, range.end_tick];
    void editAsking("pack", { envelope_id: lane.id, from_tick: from, to_tick: to });
  };
  return (
    <li className="rounded-field border border-base-300 p-1.5" style={hueStyle(parameterHue(lane.target))}>
      <div className="flex items-center gap-0.5">
        <button
          type="button"
          className="hue min-w-0 grow truncate text-left font-semibold pointer-coarse:h-11"
          title="Bring it into focus"
          onClick={() => focusOn(lane.target)}
        >
          {name}
          {lane.on ? "" : " (off)"}
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square pointer-coarse:size-10"
          aria-pressed={shown}
          aria-label={`${shown ? "Hide" : "Show"} the lane of ${name}`}
          title={shown ? "Hide it; nothing is lost" : "Show it under the lane in focus"}
          onClick={() => setLane("shown", track.id, lane.target, !shown)}
        >
          {shown ? <Eye size={14} /> : <EyeOff size={14} className="faint" />}
        </button>
        <button
          type="button"
          className="btn btn-ghost btn-xs btn-square pointer-coarse:size-10"
          aria-pressed={pinned}
          aria-label={`${pinned ? "Unpin" : "Pin"} the lane of ${name}`}
          title={pinned ? "Let it fold away with the track" : "Keep it in view while the track is folded"}
          onClick={() => setLane("pinned", track.id, lane.target, !pinned)}
        >
          {pinned ? <Pin size={14} /> : <PinOff size={14} className="faint" />}
        </button>
      </div>
      <div className="flex items-end gap-1">
        <FaderChoice lane={lane} placed={placed} />
        {holdsRegions(track) && lane.on && (
          <button
            type="button"
            className="btn btn-xs pointer-coarse:h-10"
            title="Into the clips beneath the chosen stretch, or beneath the range"
            onClick={pack}
          >
            Pack
          </button>
        )}
      </div>
      {!placed.scale.set_only && (
        <Typed
          label="Raise all of it by"
          hint={placed.scale.gain ? "+2 dB" : "+10"}
          name="raise_envelope"
          inputs={(amount) => ({ envelope_id: lane.id, amount })}
        />
      )}
    </li>
  );
}
