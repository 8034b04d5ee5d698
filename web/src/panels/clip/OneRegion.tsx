import { useMemo } from "react";
import type { RegionPart } from "../../api/types";
import { positionText } from "../../geometry/viewport";
import { edit, editAndTell } from "../../state/edits";
import type { Model } from "../../state/model";
import { Deed } from "../../ui/Deed";
import { PositionField } from "../../ui/Entry";
import { MovesCopy } from "../MovesCopy";
/** Where one region lies, and what of its clip goes elsewhere. */
export function OneRegion({ region, model }: { region: RegionPart; model: Model }) {
  const clip = model.clips[region.clip_id];
  const carrier = clip.kind === "carrier";
  const position = (tick: number) => positionText(model.head.meters, tick);
  const { start_tick, end_tick } = model.head.range;
  const goals = useMemo(
    () =>
      Object.values(model.clips)
        .filter((other) => other.id !== clip.id)
        .sort((a, b) => a.name.localeCompare(b.name)),
    [model.clips, clip.id],
  );
  return (
    <>
      <div className="grid grid-cols-2 gap-1.5">
        <PositionField
          label="Start"
          tick={region.start_tick}
          onTick={(tick, say) => edit("trim_region", { region_id: region.id, start_tick: tick }, say)}
        />
        <PositionField
          label="End"
          tick={region.start_tick + region.length_ticks}
          onTick={(tick, say) => edit("trim_region", { region_id: region.id, end_tick: tick }, say)}
        />
      </div>
      {carrier && (
        <Deed
          words={`Fit to the range ${position(start_tick)} – ${position(end_tick)}`}
          title="The clip gets the length of the range; its moves are stretched along"
          onDo={() => void editAndTell("fit_carrier", { region_id: region.id, start_tick, end_tick })}
        />
      )}
      <MovesCopy
        label={`Copy the moves of ${clip.name} to`}
        goals={goals}
        places={(id) => ({ from_clip_id: clip.id, to_clip_id: id })}
      />
      <p className="faint text-xs">
        {carrier
          ? "A carrier clip moves any knob of the song: pick a track, or the finder, and press the + of the knob."
          : "Drag the edges of a region to trim it, or to repeat it over more bars: moves and material stay."}
      </p>
    </>
  );
}
