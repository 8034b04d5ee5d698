import { Trash2 } from "lucide-react";
import { edit, editAndTell, editAsking } from "../../state/edits";
import { holdsRegions } from "../../state/holds";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { ListenButtons } from "../../table/ListenButtons";
import { Deed } from "../../ui/Deed";
import { TextField } from "../../ui/Fields";
import { MovesCopy } from "../MovesCopy";
import { Duplicate } from "./Duplicate";
import { Lanes } from "./Lanes";
import { Output } from "./Output";
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
      {track.kind !== "master" && track.kind !== "return" && (
        <Deed
          rank="remove"
          words="Remove this track"
          icon={<Trash2 size={14} />}
          onDo={() => void editAndTell("remove_track", { track_id: track.id })}
        />
      )}
    </section>
  );
}
