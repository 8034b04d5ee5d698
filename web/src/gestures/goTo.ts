import type { RegionPart, Ticks } from "../api/types";
import { setChoice } from "../state/choice";
import { choose } from "../state/choosing";
import { inHand } from "../state/layers";
import { lookup } from "../state/lookup";
import { chooseNotes, chosenNotes, withNotes } from "../state/noteChoice";
import { showTime } from "../state/scrolling";
import { song } from "../state/song";
import { viewNow } from "../state/view";
import { setWishes } from "../state/wishes";
import { endOf, trackIdOf } from "./choosing";

/** Puts the keyboard on a region, wherever in the song it lies. */
export function goTo(region: RegionPart): void {
  showTime(region.start_tick, endOf(region));
  setWishes({ region: region.id });
}

/** Puts the keyboard on the first point of the envelope in hand, where the region starts. */
export function goToPoints(region: RegionPart): boolean {
  const { focus, layer } = viewNow();
  const trackId = trackIdOf(region);
  const moves = lookup(song().model).envelopes[`clip/${region.clip_id}`] ?? [];
  const envelope = inHand(
    moves.filter(({ target }) => target === focus[trackId]),
    layer[`${trackId} clip`],
  );
  if (!envelope || envelope.points.length === 0) return false;
  setChoice({ regionId: null, regionIds: [] });
  choose(envelope.id, 0, "only", region.start_tick);
  setWishes({ point: { envelopeId: envelope.id, index: 0, windowFrom: region.start_tick } });
  return true;
}

/** The repeat of a clip in which the keyboard walks over its notes. */
let walked: { clipId: string; from: Ticks } | null = null;

/** Chooses a note of a clip and puts the keyboard on it. */
function goToNote(clipId: string, index: number, from: Ticks): void {
  walked = { clipId, from };
  chooseNotes(clipId, [index]);
  setWishes({ note: { clipId, index, from } });
}

/** Puts the keyboard on the first note that a region plays. */
export function goToNotes(region: RegionPart): boolean {
  const { model, passes } = song();
  const clip = model.clips[region.clip_id];
  const pass = passes[region.id]?.find(([from, to, into]) =>
    clip.notes.some(({ tick }) => tick >= into && tick < into + to - from),
  );
  if (!pass) return false;
  const [from, to, into] = pass;
  const index = clip.notes.findIndex(({ tick }) => tick >= into && tick < into + to - from);
  setChoice({ regionId: null, regionIds: [] });
  goToNote(clip.id, index, from);
  return true;
}

/** From the chosen note to the next or the one before; false at an end, where the keyboard goes on. */
export function walkNotes(step: 1 | -1): boolean {
  const choice = chosenNotes();
  if (!choice || walked?.clipId !== choice.clip.id) return false;
  const next = choice.chosen[0] + step;
  if (!choice.clip.notes[next]) return false;
  goToNote(choice.clip.id, next, walked.from);
  return true;
}

/** The keyboard goes back on the chosen note, after it was moved or typed at. */
export function backToNote(): void {
  const choice = chosenNotes();
  if (choice && walked?.clipId === choice.clip.id)
    setWishes({ note: { clipId: choice.clip.id, index: choice.chosen[0], from: walked.from } });
}

/** Takes the chosen notes out; a keyboard that is on one goes to the next of its clip, or to the region. */
export async function removeNotes(): Promise<void> {
  const choice = chosenNotes();
  const onNote = Boolean(document.activeElement?.closest(".note"));
  const region = regionOfNotes();
  await withNotes("remove_notes", {});
  if (!choice || !onNote || walked?.clipId !== choice.clip.id) return;
  const left = song().model.clips[choice.clip.id]?.notes ?? [];
  if (left.length > 0) goToNote(choice.clip.id, Math.min(choice.chosen[0], left.length - 1), walked.from);
  else if (region) goTo(region);
}

/** The region that the keyboard came from to the notes. */
export function regionOfNotes(): RegionPart | undefined {
  const { clipId, from } = walked ?? {};
  const placed = (clipId && lookup(song().model).placed[clipId]) || [];
  return placed.find(
    ({ start_tick, length_ticks }) => from !== undefined && from >= start_tick && from < start_tick + length_ticks,
  );
}
