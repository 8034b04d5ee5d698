import type { EnvelopePart, Snippet, Ticks } from "../api/types";
import { barTicks, snapTick } from "../geometry/viewport";
import { chosenNow, setChoice } from "./choice";
import { choiceNow, stretchNow } from "./choosing";
import { edit } from "./edits";
import { gridNow, snapSong } from "./grid";
import { tell } from "./notice";
import { snippetOf } from "./questions";
import { song } from "./song";
import { transportNow } from "./transport";
import { viewNow } from "./view";

const pushed = () => (viewNow().push ? { push: true } : {});

/** Copies the chosen stretch; the core adds the points at its edges. */
export async function copyStretch(): Promise<boolean> {
  const [choice, stretch] = [choiceNow(), stretchNow()];
  if (!choice || !stretch) return false;
  const snippet = await snippetOf(choice.envelope.id, ...stretch);
  if (!snippet) return false;
  setChoice({ clipboard: { snippet } });
  tell("done", `${snippet.points.length} points copied: paste them at the playhead, into any envelope`);
  return true;
}

export async function cutStretch(): Promise<void> {
  const [choice, stretch] = [choiceNow(), stretchNow()];
  if (!choice || !stretch || !(await copyStretch())) return;
  setChoice({ chosen: [], span: null });
  await edit("rub_out", { envelope_id: choice.envelope.id, from_tick: stretch[0], to_tick: stretch[1], ...pushed() });
}

export async function duplicateStretch(): Promise<void> {
  const [choice, stretch] = [choiceNow(), stretchNow()];
  if (!choice || !stretch) return;
  const change = await edit("duplicate_stretch", {
    envelope_id: choice.envelope.id,
    from_tick: stretch[0],
    to_tick: stretch[1],
    ...pushed(),
  });
  if (change) setChoice({ span: [stretch[1], 2 * stretch[1] - stretch[0]], chosen: [] });
}

/** Where the playhead stands in an envelope's own time; its start where it does not sound there. */
export function playheadIn(envelope: EnvelopePart): Ticks {
  const { playhead } = transportNow();
  const { windows } = song();
  const tick = snapSong(playhead, gridNow());
  if (envelope.owner.startsWith("track/")) return tick;
  const all = Object.values(windows).flatMap((entry) => entry[envelope.id] ?? []);
  const window = all.find(([from, to]) => tick >= from && tick < to);
  return window ? Math.max(0, Math.round(window[2] + (tick - window[0]) * window[3])) : 0;
}

/** Where the pointer last was over an envelope, in that envelope's own time. */
let pointer: { envelopeId: string; tick: Ticks } | null = null;
export const pointAt = (envelopeId: string, tick: Ticks): void => {
  pointer = { envelopeId, tick: Math.max(0, Math.round(tick)) };
};

/** Pastes the copied stretch where the pointer is. */
export function pasteAtPointer(): void {
  if (!pointer || !song().model.envelopes[pointer.envelopeId]) return tell("fault", "Point at an envelope first.");
  const tick = snapTick(pointer.tick, gridNow());
  setChoice({ envelopeId: pointer.envelopeId, chosen: [], span: null });
  void pasteStretch(1, tick);
}

/** Pastes the copied stretch at the playhead, or at a tick of the envelope; `factor` makes it longer or shorter. */
export async function pasteStretch(factor = 1, at: Ticks | null = null): Promise<void> {
  const { clipboard } = chosenNow();
  const choice = choiceNow();
  if (!choice || !clipboard || !("snippet" in clipboard))
    return tell("fault", "Nothing of an envelope has been copied yet: choose a stretch and copy it first.");
  const { snippet } = clipboard;
  const tick = at ?? playheadIn(choice.envelope);
  const length = Math.max(1, Math.round(snippet.length_ticks * factor));
  const change = await edit("paste_snippet", {
    envelope_id: choice.envelope.id,
    tick,
    snippet: snippet as Snippet,
    length_ticks: length,
    ...pushed(),
  });
  if (!change) return;
  const points = song().model.envelopes[choice.envelope.id].points;
  setChoice({
    span: [tick, tick + length],
    chosen: points.flatMap((point, i) => (point.tick >= tick && point.tick <= tick + length ? [i] : [])),
  });
}

/** Fades the chosen stretch; with none chosen, the first or last bar of the clip or of the song. */
export function fade(direction: "in" | "out"): void {
  const choice = choiceNow();
  if (!choice) return;
  const [from, to] = stretchNow() ?? edgeOf(choice.envelope, direction);
  void edit("fade", { envelope_id: choice.envelope.id, from_tick: from, to_tick: to, direction });
}

function edgeOf(envelope: EnvelopePart, direction: "in" | "out"): [Ticks, Ticks] {
  const { model } = song();
  const bar = barTicks(model.head.meters[0]);
  const length = envelope.owner.startsWith("clip/")
    ? model.clips[envelope.owner.slice(5)].length_ticks
    : Object.values(model.regions).reduce((end, region) => Math.max(end, region.start_tick + region.length_ticks), bar);
  return direction === "in" ? [0, Math.min(bar, length)] : [Math.max(0, length - bar), length];
}
