import type { PointerEvent } from "react";
import type { Px, RegionPart, Ticks } from "../api/types";
import { chooseRegions, chosenNow, setChoice } from "../state/choice";
import { type ChoiceMode, modeOf } from "../state/choosing";
import { handNow, setHand } from "../state/hand";
import { lookup } from "../state/lookup";
import { chooseNotes } from "../state/noteChoice";
import { song } from "../state/song";
import { type Place, placeAt, rowsIn } from "../state/stage";
import { setView, viewNow } from "../state/view";
import { drag } from "./drag";

export const trackIdOf = (region: RegionPart): string => region.owner.slice("track/".length);
export const endOf = (region: RegionPart): Ticks => region.start_tick + region.length_ticks;

/** Chooses a region: it alone, it as well (or no longer), or all from the one at hand through to it. */
export function select(region: RegionPart, mode: ChoiceMode = "only"): void {
  const { regionId, regionIds } = chosenNow();
  const { model } = song();
  const lead = regionId ? model.regions[regionId] : undefined;
  let ids = [region.id];
  if (mode === "toggle")
    ids = regionIds.includes(region.id) ? regionIds.filter((id) => id !== region.id) : [region.id, ...regionIds];
  if (mode === "through" && lead) ids = [region.id, ...between(lead, region).filter((id) => id !== region.id)];
  chooseNotes(null, []);
  chooseRegions(ids);
  setChoice({ chosen: [], span: null });
  setView({ trackId: trackIdOf(region) });
}

/** Regions on the tracks and in the time from one to another. */
function between(one: RegionPart, other: RegionPart): string[] {
  const { model } = song();
  const rows = model.tracks.map((track) => track.id);
  const [top, bottom] = [rows.indexOf(trackIdOf(one)), rows.indexOf(trackIdOf(other))].sort((a, b) => a - b);
  const [from, to] = [Math.min(one.start_tick, other.start_tick), Math.max(endOf(one), endOf(other))];
  return rows
    .slice(top, bottom + 1)
    .flatMap((id) =>
      (lookup(model).regions[`track/${id}`] ?? [])
        .filter((region) => region.start_tick < to && endOf(region) > from)
        .map((region) => region.id),
    );
}

/** The chosen regions, the earliest first. */
export const chosenRegions = (): RegionPart[] =>
  chosenNow()
    .regionIds.map((id) => song().model.regions[id])
    .filter(Boolean)
    .sort((a, b) => a.start_tick - b.start_tick);

/** Where the pointer last was on the table: a track and a tick. */
let pointed: { x: Px; y: Px } | null = null;
export const pointTable = (x: Px, y: Px): void => {
  pointed = { x, y };
};
export const underPointer = (): Place | null => pointed && placeAt(pointed.x, pointed.y);

/** Draws a loop about regions on empty ground of the table; a press without a drag lets go of all. */
export function pressTable(event: PointerEvent, onEmpty: (x: Px, y: Px) => void): void {
  const target = event.target as Element;
  if (!target.closest("[data-time]") || target.closest("button, select, input, [role=button]")) return;
  if (event.pointerType === "touch" && !viewNow().gather) return;
  const [x0, y0] = [event.clientX, event.clientY];
  const before = modeOf(event) === "only" && !viewNow().gather ? [] : chosenNow().regionIds;
  drag(
    event,
    {
      move: ({ dx, dy }) =>
        setHand({
          loop: { left: Math.min(x0, x0 + dx), top: Math.min(y0, y0 + dy), width: Math.abs(dx), height: Math.abs(dy) },
        }),
      drop: ({ moved }) => {
        const { loop } = handNow();
        const { gather } = viewNow();
        setHand({ loop: null });
        if (moved && loop) chooseRegions([...new Set([...regionsIn(loop), ...before])]);
        else if (!gather) {
          chooseRegions([]);
          onEmpty(x0, y0);
        }
      },
      cancel: () => setHand({ loop: null }),
    },
    "both",
  );
}

function regionsIn(loop: { left: Px; top: Px; width: Px; height: Px }): string[] {
  const { regions } = lookup(song().model);
  return rowsIn(loop).flatMap(({ trackId, from, to }) =>
    (regions[`track/${trackId}`] ?? [])
      .filter((region) => region.start_tick < to && endOf(region) > from)
      .map((region) => region.id),
  );
}
