import type { KeyboardEvent, PointerEvent } from "react";
import type { EditInputs, RegionPart, Ticks } from "../api/types";
import { edit } from "../song/actions";
import { previewer } from "../song/previewer";
import { setSong, setView, song, tell } from "../song/store";
import { gridNow } from "./grid";
import { barTicks, snapTick, xToTick } from "../song/viewport";
import { type Reach, drag } from "./drag";

export function select(region: RegionPart): void {
  setSong({ regionId: region.id, chosen: [], span: null });
  setView({ trackId: region.owner.slice("track/".length) });
}

/** Drags a region along its track: moves it, or with Ctrl (or Command) held leaves a copy. */
export function pressRegion(event: PointerEvent, region: RegionPart): void {
  if (event.pointerType === "touch" && song().regionId !== region.id) return tapRegion(event, region);
  const trial = previewer();
  select(region);
  const inputs = (reach: Reach) => {
    const beat = barTicks(song().model.head.meter) / song().model.head.meter.beats;
    const step = reach.free ? 0 : Math.max(gridNow(), beat);
    return { region_id: region.id, start_tick: Math.max(0, snapTick(region.start_tick + xToTick(song().view, reach.dx), step)) };
  };
  drag(event, {
    move: (reach) => trial.ask(reach.copy ? "copy_region" : "move_region", inputs(reach)),
    drop: (reach) => {
      trial.end(reach.moved);
      if (reach.moved) void edit(reach.copy ? "copy_region" : "move_region", inputs(reach));
    },
    cancel: () => trial.end(false),
  });
}

/** Drags an edge of a region: its material and envelopes stay where they are. */
export function pressRegionEdge(event: PointerEvent, region: RegionPart, side: "start" | "end"): void {
  const trial = previewer();
  select(region);
  const end = region.start_tick + region.length_ticks;
  const inputs = (reach: Reach): EditInputs["trim_region"] => {
    const wish = (tick: Ticks) => snapTick(tick + xToTick(song().view, reach.dx), reach.free ? 0 : gridNow());
    const first = Math.max(0, region.start_tick - region.offset_ticks);
    return side === "start"
      ? { region_id: region.id, start_tick: Math.min(Math.max(wish(region.start_tick), first), end - 1) }
      : { region_id: region.id, end_tick: Math.max(wish(end), region.start_tick + 1) };
  };
  drag(event, {
    move: (reach) => trial.ask("trim_region", inputs(reach)),
    drop: (reach) => {
      trial.end(reach.moved);
      if (reach.moved) void edit("trim_region", inputs(reach));
    },
    cancel: () => trial.end(false),
  });
}

/** Cuts a region where the playhead stands, on the grid. */
export const splitAtPlayhead = (region: RegionPart) => void edit("split_region", { region_id: region.id, tick: snapTick(song().playhead, gridNow()) });
export const join = (region: RegionPart) => void edit("join_region", { region_id: region.id });

/** A finger selects a region by a tap; until then a drag over it scrolls the song. */
function tapRegion(event: PointerEvent, region: RegionPart): void {
  drag(event, { move: () => {}, drop: ({ moved }) => !moved && select(region), cancel: () => {} });
}

export const duplicate = (region: RegionPart) => void edit("duplicate_region", { region_id: region.id });
export const separate = (region: RegionPart) => void edit("separate_region", { region_id: region.id });

export function remove(region: RegionPart): void {
  setSong({ regionId: null });
  void edit("remove_region", { region_id: region.id }).then((change) => change && tell("done", `Done: ${change.words}`, true));
}

export function copy(region: RegionPart): void {
  setSong({ clipboard: { region: region.id } });
  tell("done", `${song().model.clips[region.clip_id].name} is ready to paste at the playhead`);
}

/** Places the copied region at the playhead, on the grid. */
export function paste(): void {
  const { clipboard, playhead } = song();
  if (!clipboard || !("region" in clipboard)) return tell("fault", "No region has been copied yet: select a region and copy it first.");
  const start: Ticks = snapTick(playhead, gridNow());
  void edit("copy_region", { region_id: clipboard.region, start_tick: start });
}

const ACTIONS: Record<string, (region: RegionPart) => void> = { Delete: remove, Backspace: remove, d: duplicate, s: separate, c: copy, x: splitAtPlayhead, j: join };

export function regionKey(event: KeyboardEvent, region: RegionPart): void {
  const side = { ArrowLeft: -1, ArrowRight: 1 }[event.key];
  if (side) {
    const step = event.shiftKey ? gridNow() || 60 : barTicks(song().model.head.meter);
    void edit("move_region", { region_id: region.id, start_tick: Math.max(0, region.start_tick + side * step) });
  } else if (event.key === "Enter" || event.key === " ") select(region);
  else if (ACTIONS[event.key] && !event.altKey && !event.shiftKey) ACTIONS[event.key](region);
  else return;
  event.preventDefault();
  event.stopPropagation();
}
