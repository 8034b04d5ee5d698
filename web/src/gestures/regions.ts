import type { KeyboardEvent, PointerEvent } from "react";
import { songApi } from "../api/client";
import type { EditInputs, RegionPart, Ticks, TrackPart } from "../api/types";
import { barTicks, beatTicks, meterAt, positionText, xToTick } from "../geometry/viewport";
import { type Carried, carriedTo, carry } from "../state/carried";
import { chooseRegions, chosenNow, setChoice } from "../state/choice";
import { type ChoiceMode, modeOf } from "../state/choosing";
import { edit, editAndTell, editAsking } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { handNow, setHand } from "../state/hand";
import { holdsRegions } from "../state/holds";
import { commandOf, KEYS } from "../state/keyMap";
import { lookup } from "../state/lookup";
import { tell } from "../state/notice";
import { nudging } from "../state/nudging";
import { previewer } from "../state/previewer";
import { song } from "../state/song";
import { trackAt } from "../state/stage";
import { transportNow } from "../state/transport";
import { setView, viewNow } from "../state/view";
import { chosenRegions, endOf, select, trackIdOf, underPointer } from "./choosing";
import { drag, type Reach } from "./drag";

/** The chosen regions, as edits name them. */
const ids = () => ({ region_ids: chosenRegions().map((region) => region.id) });

const rowsForRegions = (tracks: TrackPart[]): string[] => tracks.filter(holdsRegions).map((track) => track.id);

/** How many rows that hold regions lie between a track and the one at a place of the screen. */
function stepsTo(trackId: string, y: number): number {
  const rows = rowsForRegions(song().model.tracks);
  const goal = rows.indexOf(trackAt(y) ?? "");
  return goal < 0 ? 0 : goal - rows.indexOf(trackId);
}

/** Drags the chosen regions in time and across tracks: moves them, or with Ctrl (or Command) held leaves copies. */
export function pressRegion(event: PointerEvent, region: RegionPart): void {
  const finger = event.pointerType === "touch";
  const chosen = chosenNow().regionIds.includes(region.id);
  if (viewNow().gather || (finger && !chosen)) return tapRegion(event, region);
  const mode = modeOf(event);
  const [x0, y0] = [event.clientX, event.clientY];
  const trial = previewer();
  /** A region that is not chosen is taken by itself, whatever else is. */
  let took = false;
  const inputs = (reach: Reach): EditInputs["move_regions"] => {
    const beat = beatTicks(meterAt(song().model.head.meters, region.start_tick));
    const step = reach.free ? 0 : Math.max(gridNow(), beat);
    const wish = snapSong(region.start_tick + xToTick(viewNow(), reach.dx), step) - region.start_tick;
    const earliest = chosenRegions()[0]?.start_tick ?? 0;
    return { ...ids(), ticks: Math.max(wish, -earliest), track_steps: stepsTo(trackIdOf(region), y0 + reach.dy) };
  };
  drag(
    event,
    {
      move: (reach) => {
        if (!chosen && !took) select(region);
        took = true;
        setHand({ carry: { x: x0 + reach.dx, y: y0 + reach.dy, fault: handNow().carry?.fault ?? null } });
        trial.ask(reach.copy ? "copy_regions" : "move_regions", inputs(reach));
      },
      drop: (reach) => {
        setHand({ carry: null });
        trial.end(reach.moved);
        if (reach.moved)
          return void edit(reach.copy ? "copy_regions" : "move_regions", inputs(reach)).then((change) => {
            if (!change) return;
            const now = song().model.regions[region.id];
            if (now) setView({ trackId: trackIdOf(now) });
            if (change.notices.some(({ code }) => code === "lost"))
              tell("done", change.notices.map(({ text }) => text).join("; "), true);
          });
        select(region, mode);
      },
      cancel: () => {
        setHand({ carry: null });
        trial.end(false);
      },
    },
    "both",
  );
}

/** Drags an edge of a region: its material and envelopes stay where they are. */
export function pressRegionEdge(event: PointerEvent, region: RegionPart, side: "start" | "end"): void {
  const trial = previewer();
  select(region);
  const end = endOf(region);
  const inputs = (reach: Reach): EditInputs["trim_region"] => {
    const wish = (tick: Ticks) => snapSong(tick + xToTick(viewNow(), reach.dx), reach.free ? 0 : gridNow());
    const first = region.looped ? 0 : Math.max(0, region.start_tick - region.offset_ticks);
    return side === "start"
      ? { region_id: region.id, start_tick: Math.min(Math.max(wish(region.start_tick), first), end - 1) }
      : { region_id: region.id, end_tick: Math.max(wish(end), region.start_tick + 1) };
  };
  drag(
    event,
    {
      move: (reach) => trial.ask("trim_region", inputs(reach)),
      drop: (reach) => {
        trial.end(reach.moved);
        if (reach.moved) void edit("trim_region", inputs(reach));
      },
      cancel: () => trial.end(false),
    },
    "both",
  );
}

/** Drags an upper corner of a region inwards: a fade of that length. */
export function pressRegionCorner(event: PointerEvent, region: RegionPart, side: "in" | "out"): void {
  const trial = previewer();
  select(region);
  const [x0, y0] = [event.clientX, event.clientY];
  const inputs = ({ dx, free }: Reach): EditInputs["fade_region"] => {
    const [edge, way] = side === "in" ? [region.start_tick, 1] : [endOf(region), -1];
    const goal = snapSong(edge + xToTick(viewNow(), dx), free ? 0 : gridNow());
    const length = Math.min(Math.max((goal - edge) * way, 0), region.length_ticks);
    return { region_id: region.id, side, length: Math.round(length) };
  };
  drag(
    event,
    {
      move: (reach) => {
        const asked = inputs(reach);
        const length = asked.length as Ticks;
        const place = side === "in" ? region.start_tick + length : endOf(region) - length;
        const at = positionText(song().model.head.meters, place);
        const words = `fade ${side} ${side === "in" ? "up to" : "from"} ${at}`;
        setHand({
          fading: { regionId: region.id, side, length },
          carry: { x: x0 + reach.dx, y: y0 + reach.dy, fault: handNow().carry?.fault ?? null, words },
        });
        trial.ask("fade_region", asked);
      },
      drop: (reach) => {
        setHand({ fading: null, carry: null });
        trial.end(reach.moved);
        if (reach.moved) void editAndTell("fade_region", inputs(reach));
      },
      cancel: () => {
        setHand({ fading: null, carry: null });
        trial.end(false);
      },
    },
    "across",
  );
}

/** Fades the chosen regions at an edge: over the bar there, or half of a region that is shorter than two. */
export async function fadeEdge(side: "in" | "out"): Promise<void> {
  for (const { id, start_tick, length_ticks } of chosenRegions()) {
    const bar = barTicks(meterAt(song().model.head.meters, start_tick));
    await editAndTell("fade_region", { region_id: id, side, length: Math.min(bar, Math.round(length_ticks / 2)) });
  }
}

/** A finger selects a region by a tap, and gathers more of them where that is on; a drag over it scrolls the song. */
function tapRegion(event: PointerEvent, region: RegionPart): void {
  const mode: ChoiceMode = viewNow().gather ? "toggle" : "only";
  drag(event, { move: () => {}, drop: ({ moved }) => !moved && select(region, mode), cancel: () => {} });
}

const split = (region: RegionPart, tick: Ticks) =>
  void edit("split_region", { region_id: region.id, tick: snapSong(tick, gridNow()) });

/** Cuts every chosen region that the playhead stands in, on the grid. */
export const splitAtPlayhead = (region: RegionPart) => split(region, transportNow().playhead);

/** Cuts the region under the pointer there, on the grid. */
export function splitAtPointer(): void {
  const place = underPointer();
  const under =
    place &&
    (lookup(song().model).regions[`track/${place.trackId}`] ?? []).find(
      (region) => place.tick > region.start_tick && place.tick < endOf(region),
    );
  if (under) split(under, place.tick);
  else tell("fault", "Point at a region first.");
}

export const join = (region: RegionPart) => void edit("join_region", { region_id: region.id });
export const duplicate = () => void edit("duplicate_regions", ids());
export const separate = (each = false) => void editAndTell("separate_regions", { ...ids(), ...(each ? { each } : {}) });
export const mute = () =>
  void edit("mute_regions", () => ({ ...ids(), muted: !chosenRegions().every((region) => region.muted) }));
export const oneClip = () => void editAsking("consolidate_regions", ids());
export const layOut = () => void editAsking("lay_out", ids());

export function remove(): void {
  const inputs = ids();
  chooseRegions([]);
  void editAndTell("remove_regions", inputs);
}

export function copy(): void {
  const regions = chosenRegions();
  const regionIds = regions.map((region) => region.id);
  setChoice({ clipboard: { regions: regionIds } });
  const [name, be] =
    regions.length === 1 ? [song().model.clips[regions[0].clip_id].name, "is"] : [`${regions.length} regions`, "are"];
  const { songId } = song();
  if (songId !== null && regionIds.length > 0) carry({ songId, regionIds, words: name });
  tell("done", `${name} ${be} ready to paste at the playhead, here or in another song`);
}

/** Brings what was copied in another song to the playhead, on the track at hand. */
async function pasteCarried({ songId, regionIds, words }: Carried): Promise<void> {
  const { trackId } = viewNow();
  if (!trackId) return tell("fault", `Choose the track that ${words} is to lie on: press its name.`);
  const document = await songApi(songId)
    .extract(regionIds)
    .catch(() => null);
  if (!document) return tell("fault", `${words} is no longer in the song it was copied from.`);
  await editAndTell("take_regions", {
    document,
    region_ids: regionIds,
    track_id: trackId,
    start_tick: snapSong(transportNow().playhead, gridNow()),
  });
}

/** Places the copied regions at the playhead, on the grid. */
export function paste(): void {
  const { clipboard } = chosenNow();
  const { playhead } = transportNow();
  const { model } = song();
  const known = clipboard && "regions" in clipboard ? clipboard.regions.filter((id) => model.regions[id]) : [];
  const carried = known.length === 0 ? carriedTo(song().songId) : null;
  if (carried) return void pasteCarried(carried);
  if (known.length === 0) return tell("fault", "No region has been copied yet: select a region and copy it first.");
  const first = Math.min(...known.map((id) => model.regions[id].start_tick));
  void edit("copy_regions", { region_ids: known, ticks: snapSong(playhead, gridNow()) - first }).then((change) => {
    // What takes the place of something says so, as a drop does.
    if (change && change.notices.length > 0)
      tell("done", [`Done: ${change.words}`, ...change.notices.map(({ text }) => text)].join("; "), true);
  });
}

/** Moves the chosen regions by bars (or grid steps), or to the next row. */
export function nudgeRegions(key: string, fine: boolean): boolean {
  const side = { ArrowLeft: -1, ArrowRight: 1 }[key];
  const row = { ArrowUp: -1, ArrowDown: 1 }[key];
  if (!side && !row) return false;
  const step = fine
    ? gridNow() || 60
    : barTicks(meterAt(song().model.head.meters, chosenRegions()[0]?.start_tick ?? 0));
  const earliest = chosenRegions()[0]?.start_tick ?? 0;
  void edit("move_regions", {
    ...ids(),
    ticks: side ? Math.max(side * step, -earliest) : 0,
    ...nudging(`regions ${ids().region_ids}`),
    ...(row ? { track_steps: row } : {}),
  });
  return true;
}

/** Whether a key does something to regions; keys of the view and of tools choose nothing. */
function meansRegions({ key, ctrlKey, metaKey, nativeEvent }: KeyboardEvent): boolean {
  if (ctrlKey || metaKey) return false;
  return key === "Delete" || key === "Backspace" || (commandOf(nativeEvent) ?? "") in KEYS.regions;
}

/** Enter chooses the region the keyboard is on; other keys that mean regions choose it first. */
export function regionKey(event: KeyboardEvent, region: RegionPart): void {
  const chosen = chosenNow().regionIds.includes(region.id);
  if (event.key === "Enter") {
    select(region, modeOf(event));
    event.preventDefault();
    event.stopPropagation();
  } else if (!chosen && meansRegions(event)) select(region);
}
