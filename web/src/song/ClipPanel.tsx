import { ClipboardPaste, Copy, CopyPlus, Merge, Scissors, Split, Trash2 } from "lucide-react";
import { PositionField } from "../edit/Fields";
import { copy, duplicate, join, paste, remove, separate, splitAtPlayhead } from "../gestures/regions";
import { edit } from "./actions";
import { useSong } from "./store";
import { useShown } from "./useShown";
import { positionText } from "./viewport";

/** What can be done with the selected region. */
export function ClipPanel() {
  const { model, find } = useShown();
  const regionId = useSong((state) => state.regionId);
  const clipboard = useSong((state) => state.clipboard);
  const region = regionId ? model.regions[regionId] : undefined;
  if (!region) {
    return (
      <div className="p-3">
        <p className="faint mb-2">Select a region to copy it, duplicate it or make it its own. Drag it to move it; with Ctrl held, a copy is left.</p>
        {clipboard && <PasteButton />}
      </div>
    );
  }
  const clip = model.clips[region.clip_id];
  const shared = find.sharers[clip.id];
  const count = (find.envelopes[`clip/${clip.id}`] ?? []).length;
  const position = (tick: number) => positionText(model.head.meter, tick);
  return (
    <section className="flex flex-col gap-2 p-3" aria-label={`Clip ${clip.name}`}>
      <div>
        <h3 className="text-lg font-bold">{clip.name}</h3>
        <p className="faint">{position(region.start_tick)} to {position(region.start_tick + region.length_ticks)}</p>
        <p className="faint">
          {shared > 1 ? `shared by ${shared} regions: an edit shows in all of them` : "in this region only"}; {count === 1 ? "1 envelope" : `${count} envelopes`}
        </p>
      </div>
      <div className="grid grid-cols-2 gap-1.5">
        <button type="button" className="btn btn-sm" onClick={() => copy(region)}><Copy size={14} /> Copy</button>
        <PasteButton />
        <button type="button" className="btn btn-sm" onClick={() => duplicate(region)}><CopyPlus size={14} /> Duplicate</button>
        <button type="button" className="btn btn-sm" disabled={shared < 2} onClick={() => separate(region)}><Split size={14} /> Separate</button>
        <button type="button" className="btn btn-sm" title="Cut in two where the playhead stands (X)" onClick={() => splitAtPlayhead(region)}><Scissors size={14} /> Split</button>
        <button type="button" className="btn btn-sm" title="With the region that goes on with it (J)" onClick={() => join(region)}><Merge size={14} /> Join</button>
        <button type="button" className="btn btn-sm" onClick={() => remove(region)}><Trash2 size={14} /> Remove</button>
      </div>
      <div className="grid grid-cols-2 gap-1.5">
        <PositionField label="Start" tick={region.start_tick} onTick={(tick, say) => edit("trim_region", { region_id: region.id, start_tick: tick }, say)} />
        <PositionField label="End" tick={region.start_tick + region.length_ticks} onTick={(tick, say) => edit("trim_region", { region_id: region.id, end_tick: tick }, say)} />
      </div>
      <p className="faint text-[11.5px]">Drag the edges of a region to trim it, or to repeat it over more bars: moves and material stay where they are.</p>
    </section>
  );
}

function PasteButton() {
  const clipboard = useSong((state) => state.clipboard);
  return (
    <button type="button" className="btn btn-sm" disabled={!clipboard || !("region" in clipboard)} title="Paste at the playhead" onClick={paste}>
      <ClipboardPaste size={14} /> Paste
    </button>
  );
}
