import { barStart, positionText } from "../geometry/viewport";
import { copyTime, cutTime, deleteTime, insertTime, markPlace, pasteTime, typeMeter } from "../gestures/songTime";
import { TEMPO } from "../state/catalogue";
import { chooseRegions, useChoice } from "../state/choice";
import { editAndTell } from "../state/edits";
import { gridNow, snapSong } from "../state/grid";
import { lookup } from "../state/lookup";
import { songEnd } from "../state/model";
import { song, useSong } from "../state/song";
import { showTempo } from "../state/tempoBox";
import { transportNow } from "../state/transport";
import { setView } from "../state/view";
import type { Deed } from "../ui/Menu";

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

const NOT_COPIED = "no bars have been copied yet";

/** What is done with whole bars of the song, over all tracks, lanes and the tempo. */
export function useBarDeeds(): { head: string; deeds: Deed[] } {
  const range = useSong((state) => state.model.head.range);
  const meters = useSong((state) => state.model.head.meters);
  const copied = useChoice((state) => state.clipboard !== null && "stretch" in state.clipboard);
  const marked = useSong((state) => (state.model.head.markers?.length ?? 0) > 0);
  const laned = useSong(({ model }) =>
    (lookup(model).targets[TEMPO] ?? []).some(({ owner }) => owner.startsWith("track/")),
  );
  const text = (tick: number) => positionText(meters, tick).replace(/\.0$/, "");
  const onBar = (tick: number) => barStart(meters, tick) === tick;
  const whole = onBar(range.start_tick) && onBar(range.end_tick) ? "" : " (not whole bars)";
  const head = snapSong(transportNow().playhead, gridNow());
  const there = onBar(head) ? "at the playhead" : `at the playhead, ${text(head)}, within a bar`;
  return {
    head: `The range ${text(range.start_tick)} – ${text(range.end_tick)}${whole}, over all tracks, lanes and the tempo`,
    deeds: [
      { id: "copy", words: "Copy bars", what: "the range as it is, to be put elsewhere", act: copyTime },
      { id: "take", words: "Take out bars", what: "kept to be put elsewhere; what comes after moves up", act: cutTime },
      { id: "drop", words: "Drop bars", what: "the same, without keeping them", act: deleteTime },
      {
        id: "put",
        words: "Put bars in",
        what: copied ? `${there}, with room made for them` : NOT_COPIED,
        act: () => pasteTime(),
        off: !copied,
      },
      {
        id: "over",
        words: "Put bars over",
        what: copied ? "at the playhead, in place of what lies there" : NOT_COPIED,
        act: () => pasteTime(true),
        off: !copied,
      },
      { id: "open", words: "Open bars", what: `empty, ${there}, as long as the range`, act: insertTime },
      {
        id: "mark",
        words: "Mark this place",
        what: "a marker with a name, at the playhead",
        act: markPlace,
      },
      {
        id: "glide",
        words: "Tempo over the range",
        what: "from one tempo to another, and back",
        act: showTempo,
      },
      {
        id: "tempo",
        words: "Lane for the tempo",
        what: laned ? "it has one already" : "under the bar numbers: points, shapes, LFOs, as for any knob",
        act: addTempoLane,
        off: laned,
      },
      {
        id: "meter",
        words: "Meter from this bar",
        what: "another time signature from the playhead's bar on",
        act: typeMeter,
      },
      {
        id: "between",
        words: "Repeat between markers",
        what: marked ? "the range is set to the markers on both sides of the playhead" : "there are no markers yet",
        act: loopMarkers,
        off: !marked,
      },
      {
        id: "carrier",
        words: "New carrier clip",
        what: "over the range: moves for any knob of the song",
        act: makeCarrier,
      },
    ],
  };
}
