import { barStart, positionText } from "../geometry/viewport";
import { copyTime, cutTime, deleteTime, insertTime, markPlace, pasteTime, typeMeter } from "../gestures/songTime";
import { TEMPO } from "../state/catalogue";
import { chooseRegions, chosenNow } from "../state/choice";
import { edit, editAndTell } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { lookup } from "../state/lookup";
import { songEnd } from "../state/model";
import { song } from "../state/song";
import { showTempo } from "../state/tempoBox";
import { transportNow } from "../state/transport";
import { setView } from "../state/view";
import type { Command } from "./command";

/** Makes a carrier clip over the range and takes it in hand. */
async function makeCarrier(): Promise<void> {
  const { start_tick, end_tick } = song().model.head.range;
  const change = await editAndTell("make_carrier", { start_tick, length_ticks: end_tick - start_tick });
  const starts = (record: unknown) => (record as { start_tick: number } | null)?.start_tick === start_tick;
  const made = change?.parts.find(([kind, , record]) => kind === "region" && starts(record));
  if (!made) return;
  chooseRegions([made[1]]);
  setView({ trackId: song().model.regions[made[1]].owner.slice("track/".length), sheet: "clip" });
}

/** The stretch between the markers (or the song's start and end) on both sides of the playhead. */
function betweenMarkers(): { start_tick: number; end_tick: number } | null {
  const at = transportNow().playhead;
  const { model } = song();
  const { markers = [] } = model.head;
  const places = [0, ...markers.map((marker) => marker.tick), songEnd(model)].sort((one, other) => one - other);
  const start_tick = places.filter((tick) => tick <= at).at(-1) ?? 0;
  const end_tick = places.find((tick) => tick > at);
  return end_tick === undefined ? null : { start_tick, end_tick };
}

/** Repeats what lies between two markers. */
async function loopMarkers(): Promise<void> {
  const stretch = betweenMarkers();
  if (stretch) await editAndTell("set_range", { ...stretch, on: true });
}

const addTempoLane = () => editAndTell("add_lane", { address: TEMPO });

const always = (): null => null;
const copied = (): string | null => {
  const { clipboard } = chosenNow();
  return clipboard && "stretch" in clipboard ? null : "No bars have been copied yet.";
};
const text = (tick: number): string => positionText(song().model.head.meters, tick).replace(/\.0$/, "");
const onBar = (tick: number): boolean => barStart(song().model.head.meters, tick) === tick;

/** Where bars are put, in words. */
function there(): string {
  const head = snapSong(transportNow().playhead, gridNow());
  return onBar(head) ? "at the playhead" : `at the playhead, ${text(head)}, within a bar`;
}

/** What commands of bars are about. */
export function barsInWords(): string {
  const { start_tick, end_tick } = song().model.head.range;
  const whole = onBar(start_tick) && onBar(end_tick) ? "" : " (not whole bars)";
  return `The range ${text(start_tick)} – ${text(end_tick)}${whole}, over all tracks, lanes and the tempo`;
}

const laned = (): boolean =>
  (lookup(song().model).targets[TEMPO] ?? []).some(({ owner }) => owner.startsWith("track/"));

/** What is done with whole bars of the song, over all tracks, lanes and the tempo. */
export const BAR_COMMANDS: Command[] = [
  { id: "copy", words: "Copy bars", what: "The range as it is, to be put elsewhere", why: always, run: copyTime },
  {
    id: "take",
    words: "Take out bars",
    what: "Kept to be put elsewhere; what comes after moves up",
    why: always,
    run: cutTime,
  },
  { id: "drop", words: "Drop bars", what: "The same, without keeping them", why: always, run: deleteTime },
  {
    id: "put",
    words: "Put bars in",
    what: "Room is made for them",
    whatNow: () => `${there()}, with room made for them`,
    held: "Ctrl V",
    placed: true,
    why: copied,
    run: () => pasteTime(),
  },
  {
    id: "over",
    words: "Put bars over",
    what: "At the playhead, in place of what lies there",
    placed: true,
    why: copied,
    run: () => pasteTime(true),
  },
  {
    id: "open",
    words: "Open bars",
    what: "Empty ones, as long as the range",
    whatNow: () => `empty, ${there()}, as long as the range`,
    placed: true,
    why: always,
    run: insertTime,
  },
  { id: "mark", words: "Mark this place", what: "A marker with a name, at the playhead", why: always, run: markPlace },
  {
    id: "glide",
    words: "Tempo over the range",
    what: "From one tempo to another, and back",
    why: always,
    run: showTempo,
  },
  {
    id: "tempo",
    words: "Lane for the tempo",
    what: "Under the bar numbers: points, shapes, LFOs, as for any knob",
    why: () => (laned() ? "It has one already." : null),
    run: addTempoLane,
  },
  {
    id: "meter",
    words: "Meter from this bar",
    what: "Another time signature from the playhead's bar on",
    why: always,
    run: typeMeter,
  },
  {
    id: "between",
    words: "Repeat between markers",
    what: "The range is set to the markers on both sides of the playhead",
    why: () => ((song().model.head.markers?.length ?? 0) > 0 ? null : "There are no markers yet."),
    run: loopMarkers,
  },
  {
    id: "carrier",
    words: "New carrier clip",
    what: "Over the range: moves for any knob of the song",
    why: always,
    run: makeCarrier,
  },
  {
    id: "along",
    words: "Let lane points go along",
    wordsNow: () => (song().model.head.points_follow ? "Let lane points stay" : "Let lane points go along"),
    what: "When regions are moved, copied or removed",
    on: () => song().model.head.points_follow ?? false,
    why: always,
    run: () => edit("set_points_follow", () => ({ on: !song().model.head.points_follow })),
  },
];
