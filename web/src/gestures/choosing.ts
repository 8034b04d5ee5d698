import type { PointerEvent } from "react";
import type { RegionPart, Ticks } from "../api/types";
import { lookup } from "../state/lookup";
import { chooseRegions, setSong, setView, song } from "../state/store";
import { xToTick } from "../geometry/viewport";
import { type ChoiceMode, modeOf } from "./choice";
import { drag } from "./drag";

export const trackIdOf = (region: RegionPart): string => region.owner.slice("track/".length);
export const endOf = (region: RegionPart): Ticks => region.start_tick + region.length_ticks;

/** Chooses a region: it alone, it as well (or no longer), or all from the one at hand through to it. */
export function select(region: RegionPart, mode: ChoiceMode = "only"): void {
  const { regionId, regionIds, model } = song();
  const lead = regionId ? model.regions[regionId] : undefined;
  let ids = [region.id];
  if (mode === "toggle") ids = regionIds.includes(region.id) ? regionIds.filter((id) => id !== region.id) : [region.id, ...regionIds];
  if (mode === "through" && lead) ids = [region.id, ...between(lead, region).filter((id) => id !== region.id)];
  chooseRegions(ids);
  setSong({ chosen: [], span: null });
  setView({ trackId: trackIdOf(region) });
}

/** Regions on the tracks and in the time from one to another. */
function between(one: RegionPart, other: RegionPart): string[] {
  const { model } = song();
  const rows = model.tracks.map((track) => track.id);
  const [top, bottom] = [rows.indexOf(trackIdOf(one)), rows.indexOf(trackIdOf(other))].sort((a, b) => a - b);
  const [from, to] = [Math.min(one.start_tick, other.start_tick), Math.max(endOf(one), endOf(other))];
  return rows.slice(top, bottom + 1).flatMap((id) => (lookup(model).regions[`track/${id}`] ?? []).filter((region) => region.start_tick < to && endOf(region) > from).map((region) => region.id));
}

/** The chosen regions, the earliest first. */
export const chosenRegions = (): RegionPart[] =>
  song()
    .regionIds.map((id) => song().model.regions[id])
    .filter(Boolean)
    .sort((a, b) => a.start_tick - b.start_tick);

/** The row of a track at a place of the screen. */
export const rowAt = (x: number, y: number): HTMLElement | undefined =>
  document.elementsFromPoint(x, y).map((element) => element.closest<HTMLElement>("[data-track-id]") ?? undefined).find(Boolean);

/** Where the pointer last was on the table: a track and a tick. */
let pointed: { x: number; y: number } | null = null;
export const pointTable = (x: number, y: number): void => void (pointed = { x, y });
export function underPointer(): { trackId: string; tick: Ticks } | null {
  const row = pointed && rowAt(pointed.x, pointed.y);
  const time = row?.querySelector("[data-time]")?.getBoundingClientRect();
  if (!pointed || !row?.dataset.trackId || !time) return null;
  return { trackId: row.dataset.trackId, tick: Math.round(xToTick(song().view, pointed.x - time.left)) };
}

/** Draws a loop about regions on empty ground of the table; a press without a drag lets go of all. */
export function pressTable(event: PointerEvent): void {
  const target = event.target as Element;
  if (!target.closest("[data-time]") || target.closest("button, select, input, [role=button]")) return;
  if (event.pointerType === "touch" && !song().gather) return;
  const [x0, y0] = [event.clientX, event.clientY];
  const before = modeOf(event) === "only" && !song().gather ? [] : song().regionIds;
  drag(event, {
    move: ({ dx, dy }) => setSong({ loop: { left: Math.min(x0, x0 + dx), top: Math.min(y0, y0 + dy), width: Math.abs(dx), height: Math.abs(dy) } }),
    drop: ({ moved }) => {
      const { loop, gather } = song();
      setSong({ loop: null });
      if (moved && loop) chooseRegions([...new Set([...regionsIn(loop), ...before])]);
      else if (!gather) chooseRegions([]);
    },
    cancel: () => setSong({ loop: null }),
  });
}

function regionsIn(loop: { left: number; top: number; width: number; height: number }): string[] {
  const { model, view } = song();
  const found: string[] = [];
  for (const row of document.querySelectorAll<HTMLElement>("[data-track-id]")) {
    const box = row.getBoundingClientRect();
    const time = row.querySelector("[data-time]")?.getBoundingClientRect();
    if (!time || box.bottom < loop.top || box.top > loop.top + loop.height) continue;
    const [from, to] = [loop.left, loop.left + loop.width].map((x) => xToTick(view, x - time.left));
    for (const region of lookup(model).regions[`track/${row.dataset.trackId}`] ?? []) if (region.start_tick < to && endOf(region) > from) found.push(region.id);
  }
  return found;
}
