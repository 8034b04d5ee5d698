import { Plus, Trash2 } from "lucide-react";
import { useRef } from "react";
import type { EnvelopePart, RegionPart } from "../../api/types";
import { positionText } from "../../geometry/viewport";
import { makeClip } from "../../gestures/clips";
import { giveFiles } from "../../gestures/files";
import { remove } from "../../gestures/regions";
import { useChoice } from "../../state/choice";
import type { Lookup } from "../../state/lookup";
import type { Model } from "../../state/model";
import { toggleArm, usePerforming } from "../../state/performing";
import { transportNow } from "../../state/transport";
import { useShown } from "../../state/useShown";
import { useView } from "../../state/view";
import { RestButton } from "../../table/ListenButtons";
import { Deed } from "../../ui/Deed";
import { Needle } from "../../ui/Needle";
import { useDropFiles } from "../../ui/useDropFiles";
import { MoveList } from "../MoveList";
import { ClipFields } from "./ClipFields";
import { OneRegion } from "./OneRegion";
import { PasteDeed, RegionDeeds } from "./RegionDeeds";
import { SwapSelect } from "./SwapSelect";

const NONE: EnvelopePart[] = [];

/** What can be done with the chosen regions. */
export function ClipPanel() {
  const { model, find } = useShown();
  const regionIds = useChoice((state) => state.regionIds);
  const trackId = useView((state) => state.trackId);
  const track = model.tracks.find(({ id, kind }) => id === trackId && kind === "notes");
  const regions = regionIds.map((id) => model.regions[id]).filter(Boolean);
  const box = useRef<HTMLElement>(null);
  useDropFiles(box, (files) => void giveFiles(files, model.clips[regions[0].clip_id], regions[0]), regions.length > 0);
  if (regions.length === 0) {
    return (
      <div className="flex flex-col gap-2 p-4">
        <p className="faint">
          Select a region to see its clip. Shift or Ctrl chooses more of them, and so does a loop drawn over empty
          ground; with fingers, use Gather in the tool bar.
        </p>
        <PasteDeed />
        {track && (
          <Deed
            words={`New clip on ${track.name}`}
            title="An empty clip of one bar where the playhead stands; a double press on empty ground makes one there"
            icon={<Plus size={14} />}
            onDo={() => void makeClip(track.id, transportNow().playhead)}
          />
        )}
      </div>
    );
  }
  return (
    <section
      ref={box}
      className="flex flex-col gap-3 p-3"
      aria-label={regions.length === 1 ? `Clip ${model.clips[regions[0].clip_id].name}` : `${regions.length} regions`}
    >
      {regions.length === 1 ? (
        <OneHead region={regions[0]} model={model} find={find} />
      ) : (
        <ManyHead regions={regions} model={model} />
      )}
      {regions.length === 1 && (
        <MoveList
          label="Its moves"
          envelopes={find.envelopes[`clip/${regions[0].clip_id}`] ?? NONE}
          regionOf={() => regions[0].id}
          none="None yet: the + of a knob puts one into this clip."
        />
      )}
      {regions.length === 1 && (find.envelopes[`clip/${regions[0].clip_id}`] ?? NONE).length > 0 && (
        <RestButton
          owner={`clip/${regions[0].clip_id}`}
          words="Rest its moves"
          title="Heard without them for a listen, in every region; the song stays as it is"
        />
      )}
      {regions.length === 1 && <ArmClip clipId={regions[0].clip_id} name={model.clips[regions[0].clip_id].name} />}
      <RegionDeeds regions={regions} />
      <SwapSelect regions={regions} model={model} />
      {regions.length === 1 && <ClipFields clip={model.clips[regions[0].clip_id]} region={regions[0]} model={model} />}
      {regions.length === 1 && <OneRegion region={regions[0]} model={model} />}
      <Deed
        rank="remove"
        words={regions.length === 1 ? "Remove this region" : "Remove these regions"}
        icon={<Trash2 size={14} />}
        onDo={remove}
      />
    </section>
  );
}

/** Arms a clip: what hands do with what it may move is written. */
function ArmClip({ clipId, name }: { clipId: string; name: string }) {
  const on = usePerforming(({ armed }) => armed.clips.includes(clipId));
  return (
    <Deed
      words={on ? "Armed" : "Arm this clip"}
      title={`What hands do with the knobs of its track is written into ${name} while it records`}
      icon={<Needle threaded={on} />}
      pressed={on}
      onDo={() => toggleArm("clips", clipId)}
    />
  );
}

function OneHead({ region, model, find }: { region: RegionPart; model: Model; find: Lookup }) {
  const clip = model.clips[region.clip_id];
  const shared = find.sharers[clip.id];
  const position = (tick: number) => positionText(model.head.meters, tick);
  return (
    <div>
      <h3 className="text-lg font-bold">{clip.name}</h3>
      <p className="faint">
        {position(region.start_tick)} to {position(region.start_tick + region.length_ticks)}
        {clip.kind === "carrier" && ", carries moves only"}
      </p>
      <p className="faint">
        {shared > 1 ? `shared by ${shared} regions: an edit shows in all of them` : "in this region only"}
      </p>
    </div>
  );
}

function ManyHead({ regions, model }: { regions: RegionPart[]; model: Model }) {
  const names = [...new Set(regions.map((region) => model.clips[region.clip_id].name))];
  return (
    <div>
      <h3 className="text-lg font-bold">{regions.length} regions</h3>
      <p className="faint">
        {names.slice(0, 4).join(", ")}
        {names.length > 4 && ` and ${names.length - 4} more`}
      </p>
    </div>
  );
}
