import { named, REGION_COMMANDS } from "../commands";
import { does } from "../commands/command";
import { chosenRegions } from "../gestures/choosing";
import { goToPoints as pointsOfRegion } from "../gestures/goTo";
import { allOff } from "../gestures/playIn";
import { addPoint, focusPoint } from "../gestures/points";
import { toggleRecording } from "../gestures/recording";
import { markPlace } from "../gestures/songTime";
import { player } from "../sound/player";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow } from "../state/choosing";
import { playheadIn } from "../state/clipboard";
import { edit } from "../state/edits";
import { toggleFold } from "../state/folding";
import { hearingNow } from "../state/hearing";
import type { DeedId } from "../state/keyMap";
import { turnLayer } from "../state/layers";
import { lookup } from "../state/lookup";
import { tell } from "../state/notice";
import { toggleArm } from "../state/performing";
import { playInNow, setPlayIn } from "../state/playIn";
import { faultsSaid } from "../state/queue";
import { fit, zoomAtHand } from "../state/scrolling";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setView, turnNotes, turnShowing, viewNow } from "../state/view";
import { openField } from "../state/wishes";
import { showKeys } from "./KeyList";

const ZOOM = 1.4;

/** Puts a point of the envelope at hand where the playhead stands, on the line. */
async function putPoint(): Promise<void> {
  const choice = choiceNow();
  if (!choice) return tell("fault", "Choose an envelope first: press its line.");
  const { id } = choice.envelope;
  await addPoint({ envelope_id: id, tick: playheadIn(choice.envelope) });
  focusPoint(id, chosenNow().chosen[0] ?? 0);
}

function goToPoints(): void {
  const choice = choiceNow();
  if (choice && choice.envelope.points.length > 0) return focusPoint(choice.envelope.id, choice.chosen[0] ?? 0);
  const region = chosenRegions()[0];
  if (!region || !pointsOfRegion(region)) tell("fault", "Choose an envelope first: press its line.");
}

/** Takes the next envelope of the parameter shown in hand: in the clips of the track, or else in its lanes. */
function nextLayer(): void {
  const { trackId, focus } = viewNow();
  const address = trackId && focus[trackId];
  if (!trackId || !address) return;
  const find = lookup(song().model);
  const moves = (owner: string) => (find.envelopes[owner] ?? []).filter((envelope) => envelope.target === address);
  const inClips = (find.regions[`track/${trackId}`] ?? []).flatMap((region) => moves(`clip/${region.clip_id}`));
  if (turnLayer(trackId, "clip", inClips) || turnLayer(trackId, "lane", moves(`track/${trackId}`)))
    return setChoice({ envelopeId: null, chosen: [], span: null });
  tell("fault", "There is one envelope for it here; the + on its knob embeds another.");
}

/** Brings the playhead to the next marker, or to the one before. */
function toMarker(step: 1 | -1): void {
  const { playhead } = transportNow();
  const ticks = (song().model.head.markers ?? []).map(({ tick }) => tick);
  const goal = step > 0 ? ticks.find((tick) => tick > playhead) : ticks.filter((tick) => tick < playhead).pop();
  if (goal !== undefined) player.seek(goal);
  else tell("fault", "There is no marker on that side; the key for marking sets one at the playhead.");
}

/** Turns between the song as it stands and the version heard last. */
function hearOther(): void {
  const { version, last } = hearingNow();
  if (version) void player.hear(null);
  else if (last) void faultsSaid(() => player.hear(last));
  else tell("fault", "Hear a version first: Versions, at the right.");
}

/** Every note ends, those a hand holds too. */
export function silence(): void {
  player.hush();
  allOff();
}

/** What a key does to the chosen regions. */
const by = (id: string) => () => does(named(REGION_COMMANDS, id));

/** Puts something at the foot, or the knobs again; on a phone, it is a sheet. */
function turnFoot(foot: "mixer" | "keys"): void {
  setView({ foot: viewNow().foot === foot ? "knobs" : foot });
}

/** What each key does. */
function armFocus(): void {
  const { trackId, focus } = viewNow();
  const address = trackId ? focus[trackId] : undefined;
  if (address) toggleArm("knobs", address);
  else tell("fault", "Touch a knob first.");
}

export const DEEDS: Record<DeedId, () => unknown> = {
  points: () => setView({ tool: "points" }),
  range: () => setView({ tool: "range" }),
  lasso: () => setView({ tool: "lasso" }),
  freehand: () => setView({ tool: "freehand" }),
  steps: () => setView({ tool: "steps" }),
  ramp: () => setView({ tool: "ramp" }),
  rub: () => setView({ tool: "rub" }),
  repeat: () => edit("set_range", () => ({ on: !song().model.head.range.on })),
  follow: () => player.follow(),
  mark: markPlace,
  "next-mark": () => toMarker(1),
  "last-mark": () => toMarker(-1),
  other: hearOther,
  hush: silence,
  unfold: () => viewNow().trackId && toggleFold(viewNow().trackId as string),
  hide: turnShowing,
  whole: () => fit(),
  in: () => zoomAtHand(ZOOM),
  out: () => zoomAtHand(1 / ZOOM),
  find: () => openField("find", "finder"),
  notes: () => viewNow().trackId && turnNotes(viewNow().trackId as string),
  panel: () => setView({ panelOpen: !viewNow().panelOpen }),
  mixer: () => turnFoot("mixer"),
  play: () => turnFoot("keys"),
  record: () => toggleRecording(),
  arm: () => armFocus(),
  type: () => setPlayIn({ typing: !playInNow().typing }),
  keys: showKeys,
  put: putPoint,
  enter: goToPoints,
  layer: nextLayer,
  again: by("duplicate"),
  split: by("split"),
  "split-here": by("split-here"),
  together: by("join"),
  "one-clip": by("one-clip"),
  own: by("own"),
  quiet: by("mute"),
  "lay-out": by("lay-out"),
};
