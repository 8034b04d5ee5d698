import { Trash2 } from "lucide-react";
import type { TrackPart } from "../../api/types";
import { hueStyle } from "../../geometry/hue";
import { stepTo } from "../../gestures/tracks";
import { edit, editAsking } from "../../state/edits";
import { holdsRegions } from "../../state/holds";
import { showPresets } from "../../state/presets";
import { useSong } from "../../state/song";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { ArmButton } from "../../table/ArmButton";
import { ListenButtons, RestButton } from "../../table/ListenButtons";
import { Deed } from "../../ui/Deed";
import { TextField } from "../../ui/Fields";
import { MovesCopy } from "../MovesCopy";
import { Duplicate } from "./Duplicate";
import { Lanes } from "./Lanes";
import { Output } from "./Output";

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
        {track.kind !== "carrier" && <ArmButton trackId={track.id} name={track.name} spelled />}
        <RestButton owner={`track/${track.id}`} words="Rest" title="Heard without its moves for a listen" />
      </div>
      <Hues track={track} />
      <Output track={track} tracks={model.tracks} />
      <Order track={track} />
      {track.kind !== "carrier" && (
        <Deed
          words="Presets of the chain …"
          title="Use one for all its devices, or keep this"
          onDo={() => showPresets(track, null)}
        />
      )}
      {track.kind !== "carrier" && <Lanes track={track} lanes={lanes} />}
      {holdsRegions(track) && (
        <>
          <Deed
            words="Lay all clip moves out"
            title="All clip moves of the track become points of its lanes; what is heard stays"
            onDo={() => void editAsking("lay_out", { track_id: track.id })}
          />
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
      {track.kind !== "master" && (
        <Deed
          rank="remove"
          words="Remove this track"
          icon={<Trash2 size={14} />}
          onDo={() => void editAsking("remove_track", { track_id: track.id })}
        />
      )}
    </section>
  );
}

/** Its colour among the dyes. */
function Hues({ track }: { track: TrackPart }) {
  const hues = useSong((state) => state.catalogue?.hues) ?? NONE;
  return (
    <div className="flex gap-1" role="group" aria-label="Colour of the track">
      {hues.map((hue) => (
        <button
          key={hue}
          type="button"
          className="hue-choice"
          style={hueStyle(hue)}
          aria-label={hue}
          aria-pressed={track.hue === hue}
          title={hue}
          onClick={() => void edit("colour_track", { track_id: track.id, hue: hue as TrackPart["hue"] })}
        />
      ))}
    </div>
  );
}

/** Its place among the others; by mouse its name is dragged. */
function Order({ track }: { track: TrackPart }) {
  if (track.kind === "master") return null;
  const [up, down] = [stepTo(track, -1), stepTo(track, 1)];
  const move = (before: string | null) => void (before && edit("move_track", { track_id: track.id, before }));
  return (
    <div className="grid grid-cols-2 gap-1" role="group" aria-label="Place of the track">
      <Deed words="Up" title="Above the track over it (Alt and arrow up)" off={!up} onDo={() => move(up)} />
      <Deed words="Down" title="Under the track below it (Alt and arrow down)" off={!down} onDo={() => move(down)} />
    </div>
  );
}
