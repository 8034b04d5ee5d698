import { Eye, EyeOff, Pin, PinOff } from "lucide-react";
import { useEffect, useState } from "react";
import type { EditInputs, EnvelopePart, TrackCounts, TrackPart } from "../api/types";
import { hueStyle, parameterHue } from "../geometry/hue";
import { findParameter, type Placed } from "../state/catalogue";
import { stretchNow } from "../state/choosing";
import { edit, editAndTell, editAsking } from "../state/edits";
import { focusOn } from "../state/focus";
import { holdsRegions } from "../state/holds";
import { api } from "../state/questions";
import { useSong } from "../state/song";
import { useShown } from "../state/useShown";
import { setLane, useView } from "../state/view";
import { ListenButtons } from "../table/ListenButtons";
import { Typed } from "../ui/Entry";
import { TextField } from "../ui/Fields";
import { MovesCopy } from "./MovesCopy";

const NONE: string[] = [];

/** The selected track: how it is listened to, where it goes, its lanes, and what is made of it. */
export function TrackPanel() {
  const { model, find } = useShown();
  const trackId = useView((state) => state.trackId);
  const track = model.tracks.find((entry) => entry.id === trackId);
  if (!track) return <p className="faint p-4">Select a track.</p>;
  const lanes = find.envelopes[`track/${track.id}`] ?? [];
  return (
    <section className="flex flex-col gap-3 p-3" aria-label={`Track ${track.name}`}>
      <TextField
        label="Name of the track"
        value={track.name}
        onCommit={(name) => edit("rename_track", { track_id: track.id, name })}
        className="w-full text-lg font-bold"
      />
      <div className="flex gap-1.5" role="group" aria-label="Listening">
        <ListenButtons track={track} spelled />
      </div>
      <Output track={track} tracks={model.tracks} />
      {track.kind !== "carrier" && <Lanes track={track} lanes={lanes} />}
      {holdsRegions(track) && (
        <>
          <button
            type="button"
            className="btn btn-sm pointer-coarse:h-11"
            title="All clip moves of the track become points of its lanes; what is heard stays"
            onClick={() => void editAsking("lay_out", { track_id: track.id })}
          >
            Lay all clip moves out
          </button>
          <Duplicate track={track} />
        </>
      )}
      {lanes.length > 0 && (
        <MovesCopy
          label={`Copy the lanes of ${track.name} to`}
          goals={model.tracks.filter((other) => other.id !== track.id && other.kind !== "carrier")}
          places={(id) => ({ from_track_id: track.id, to_track_id: id })}
        />
      )}
      {track.kind !== "master" && track.kind !== "return" && (
        <button
          type="button"
          className="btn btn-ghost btn-sm self-start font-normal pointer-coarse:h-11"
          onClick={() => void editAndTell("remove_track", { track_id: track.id })}
        >
          Remove this track
        </button>
      )}
    </section>
  );
}

const NEW = "+";

/** Into which group, or the master, a track sounds. */
function Output({ track, tracks }: { track: TrackPart; tracks: TrackPart[] }) {
  if (track.kind === "master" || track.kind === "carrier") return null;
  const choose = (output: string) =>
    output === NEW
      ? editAndTell("make_group", { track_ids: [track.id] })
      : edit("set_output", { track_ids: [track.id], output });
  const goals = tracks.filter((other) => (other.kind === "group" || other.kind === "master") && other.id !== track.id);
  return (
    <label className="flex flex-col text-xs">
      <span className="faint">Sounds into</span>
      <select
        className="select select-sm w-full pointer-coarse:h-11"
        aria-label="Sounds into"
        value={track.output ?? ""}
        onChange={(event) => void choose(event.target.value)}
      >
        {goals.map((goal) => (
          <option key={goal.id} value={goal.id}>
            {goal.name}
            {goal.kind === "group" ? " (group)" : ""}
          </option>
        ))}
        <option value={NEW}>a new group</option>
      </select>
    </label>
  );
}

function Lanes({ track, lanes }: { track: TrackPart; lanes: EnvelopePart[] }) {
  const catalogue = useSong((state) => state.catalogue);
  const tracks = useSong((state) => state.model.tracks);
  const placed = (lane: EnvelopePart) => catalogue && findParameter(catalogue, tracks, lane.target);
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
          className="hue min-w-0 grow truncate text-left font-semibold"
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

/** Whether a lane moves its fader, or the fader raises or lowers what the lane does, as a whole. */
export function FaderChoice({ lane, placed }: { lane: EnvelopePart; placed: Placed }) {
  if (lane.role !== "set" || placed.scale.set_only) return <span className="grow" />;
  const now = lane.fader ?? "follow";
  return (
    <div className="join grow" role="group" aria-label={`Fader of ${placed.entry.name}`}>
      {(["follow", "trim"] as const).map((fader) => (
        <button
          key={fader}
          type="button"
          className={`btn join-item btn-xs grow pointer-coarse:h-10 ${now === fader ? "btn-secondary" : ""}`}
          aria-pressed={now === fader}
          title={
            fader === "follow"
              ? "The lane moves the fader"
              : "The fader raises or lowers what the lane does, as a whole"
          }
          onClick={() => now !== fader && void edit("set_fader", { envelope_id: lane.id, fader })}
        >
          {fader}
        </button>
      ))}
    </div>
  );
}

/** Asks, before a track is duplicated, whether its moves come along, and shows what each choice brings. */
function Duplicate({ track }: { track: TrackPart }) {
  const [counts, setCounts] = useState<TrackCounts | null>(null);
  const revision = useSong((state) => state.revision);
  // biome-ignore lint/correctness/useExhaustiveDependencies: worked out again just when one of these changes
  useEffect(() => setCounts(null), [track.id, revision]);
  const words = (number: number, word: string) => `${number} ${word}${number === 1 ? "" : "s"}`;
  const make = (moves: EditInputs["duplicate_track"]["moves"]) =>
    void editAndTell("duplicate_track", { track_id: track.id, moves });
  if (!counts)
    return (
      <button
        type="button"
        className="btn btn-sm pointer-coarse:h-11"
        onClick={() => void api().trackCounts(track.id).then(setCounts)}
      >
        Duplicate this track …
      </button>
    );
  return (
    <div className="rounded-field border border-base-300 p-2" role="group" aria-label="Duplicate this track">
      <button type="button" className="btn btn-sm btn-primary w-full pointer-coarse:h-11" onClick={() => make(true)}>
        With its moves
      </button>
      <p className="faint mb-1.5 text-xs">
        {words(counts.regions, "region")}, {words(counts.lanes, "lane")} and {words(counts.envelopes, "clip move")} come
        along, turned to the new track.
      </p>
      <button type="button" className="btn btn-sm w-full pointer-coarse:h-11" onClick={() => make(false)}>
        Without its moves
      </button>
      <p className="faint text-xs">
        {words(counts.regions, "region")} with the same material;{" "}
        {counts.lanes + counts.envelopes === 0
          ? "there are no moves"
          : `${words(counts.lanes, "lane")} and ${words(counts.envelopes, "clip move")} stay behind`}
        .
      </p>
    </div>
  );
}
