import { barTicks, meterAt, positionText } from "../geometry/viewport";
import { chosenNow, setChoice } from "../state/choice";
import { edit, editAndTell } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { tell } from "../state/notice";
import { songStretchOf } from "../state/questions";
import { typeSignature } from "../state/signature";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setWishes } from "../state/wishes";

const range = () => song().model.head.range;
const playhead = () => snapSong(transportNow().playhead, gridNow());
const rangeText = () => {
  const { meters } = song().model.head;
  return `${positionText(meters, range().start_tick)} to ${positionText(meters, range().end_tick)}`;
};

/** Copies the range of the whole song: all tracks and lanes, and the tempo. */
export async function copyTime(): Promise<boolean> {
  const stretch = await songStretchOf(range().start_tick, range().end_tick);
  if (!stretch) return false;
  setChoice({ clipboard: { stretch } });
  tell("done", `${rangeText()} of the song is ready to paste at the playhead`);
  return true;
}

export const deleteTime = () =>
  editAndTell("delete_time", { from_tick: range().start_tick, to_tick: range().end_tick });

export async function cutTime(): Promise<void> {
  if (await copyTime()) await deleteTime();
}

/** Puts the copied stretch in at the playhead: with room made for it, or over what lies there. */
export function pasteTime(over = false): void {
  const { clipboard } = chosenNow();
  if (!clipboard || !("stretch" in clipboard))
    return tell("fault", "No stretch of the song has been copied yet: set a range and copy it first.");
  void editAndTell("paste_time", { tick: playhead(), stretch: clipboard.stretch, ...(over ? { over } : {}) });
}

/** Makes room at the playhead, as long as the range. */
export const insertTime = () =>
  void editAndTell("insert_time", { tick: playhead(), length_ticks: range().end_tick - range().start_tick });

/** Sets the time signature from a bar on, as it is written: 3/4. */
export const setMeter = (text: string, bar: number) => {
  const [beats, unit] = text.split("/").map(Number);
  return edit("set_meter", { beats, unit: unit as 4, bar });
};

/** Asks for another time signature from the bar on in which the playhead stands. */
export function typeMeter(): void {
  const { meters } = song().model.head;
  const section = meterAt(meters, transportNow().playhead);
  typeSignature(section.bar + Math.floor((transportNow().playhead - section.tick) / barTicks(section)));
  setWishes({ field: "signature" });
}

/** A marker at the playhead, on the grid, to be named at once. */
export async function markPlace(): Promise<void> {
  const tick = playhead();
  if (!(await editAndTell("add_marker", { tick }))) return;
  const made = song().model.head.markers?.find((marker) => marker.tick === tick);
  if (made) setWishes({ marker: made.id });
}
