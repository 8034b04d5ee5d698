import {
  ArrowDownRight,
  ArrowUpRight,
  Backpack,
  ClipboardPaste,
  Copy,
  CopyPlus,
  PanelRight,
  Scissors,
  TextCursorInput,
  Trash2,
} from "lucide-react";
import type { EnvelopePart } from "../api/types";
import { shapeOf } from "../gestures/bends";
import { chosenRegions } from "../gestures/choosing";
import { goToPoints } from "../gestures/goTo";
import { pressKeep } from "../gestures/keeping";
import { addPoint, focusPoint, removePoints } from "../gestures/points";
import { findParameter } from "../state/catalogue";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow, chooseMany, runsOf, stretchNow } from "../state/choosing";
import {
  copyStretch,
  cutStretch,
  duplicateStretch,
  fade,
  pasteAtPointer,
  pasteStretch,
  playheadIn,
} from "../state/clipboard";
import { copiedValue, pasteWords } from "../state/copiedValue";
import { edit } from "../state/edits";
import { layersOf, turnLayer } from "../state/layers";
import { lookup } from "../state/lookup";
import { tell } from "../state/notice";
import { showKeeping } from "../state/satchel";
import { song } from "../state/song";
import { setView, viewNow } from "../state/view";
import { openField } from "../state/wishes";
import { made, nameOf, SHAPE_NAMES, type ShapeName } from "../ui/shapes";
import type { Command } from "./command";

const stretch = () => (stretchNow() ? null : "Choose points or a span first.");
const span = () => (chosenNow().span ? null : "Choose a span first, with the tool Span.");
/** The chosen points that a segment leaves. */
export const leavingOf = (envelope: EnvelopePart, chosen: number[]): number[] =>
  chosen.filter((index) => index + 1 < envelope.points.length);

function leaving() {
  const choice = choiceNow();
  return choice ? leavingOf(choice.envelope, choice.chosen).map((index) => choice.envelope.points[index]) : [];
}

const NO_ENVELOPE = "Choose an envelope first: press its line.";
const envelope = () => (choiceNow() ? null : NO_ENVELOPE);
const ONE_LAYER = "There is one envelope for it here; the + on its knob embeds another.";

/** The unit of what the envelope in hand moves. */
function unitNow(): string | null {
  const { catalogue, model } = song();
  const target = choiceNow()?.envelope.target;
  return (catalogue && target && findParameter(catalogue, model, target)?.scale.unit) ?? null;
}

function valuePaste(): string | null {
  const choice = choiceNow();
  if (!choice || choice.chosen.length === 0) return "Choose points first.";
  const copied = copiedValue();
  if (!copied) return "Copy the value of a knob first.";
  if (copied.unit !== unitNow()) return `${copied.text} is in another unit.`;
  return choice.envelope.role === "set" ? null : "Only a move that sets holds values of its knob.";
}

const copied = () => {
  const { clipboard } = chosenNow();
  return clipboard && "snippet" in clipboard ? null : "No stretch of a move has been copied yet.";
};

/** Puts a point of the envelope in hand where the playhead stands, on the line. */
async function putPoint(): Promise<void> {
  const choice = choiceNow();
  if (!choice) return;
  const { id } = choice.envelope;
  await addPoint({ envelope_id: id, tick: playheadIn(choice.envelope) });
  focusPoint(id, chosenNow().chosen[0] ?? 0);
}

/** Puts the keyboard on the points of the envelope in hand, or of the chosen region. */
function enter(): void {
  const choice = choiceNow();
  if (choice && choice.envelope.points.length > 0) return focusPoint(choice.envelope.id, choice.chosen[0] ?? 0);
  const region = chosenRegions()[0];
  if (!region || !goToPoints(region)) tell("fault", NO_ENVELOPE);
}

/** The envelopes of the parameter that the track at hand shows: in its clips, and on its lanes. */
function layers(): [inClips: EnvelopePart[], lanes: EnvelopePart[]] {
  const { trackId, focus } = viewNow();
  const address = trackId && focus[trackId];
  if (!trackId || !address) return [[], []];
  const find = lookup(song().model);
  const moves = (owner: string) => (find.envelopes[owner] ?? []).filter(({ target }) => target === address);
  const clips = (find.regions[`track/${trackId}`] ?? []).flatMap((region) => moves(`clip/${region.clip_id}`));
  return [clips, moves(`track/${trackId}`)];
}

/** Takes the next of them in hand: in the clips of the track, or else in its lanes. */
function nextLayer(): void {
  const { trackId } = viewNow();
  const [clips, lanes] = layers();
  if (!trackId || !(turnLayer(trackId, "clip", clips) || turnLayer(trackId, "lane", lanes))) return;
  setChoice({ envelopeId: null, chosen: [], span: null });
}

const points = () => ((choiceNow()?.chosen.length ?? 0) > 0 ? null : "Choose a point first: press it.");

/** Shapes for the segments that leave the chosen points. */
export const SHAPE_COMMANDS: (Command & { shape: ShapeName })[] = SHAPE_NAMES.map((name) => ({
  id: `shape-${name}`,
  words: name[0].toUpperCase() + name.slice(1),
  what: "The shape of the segments after the chosen points",
  shape: name,
  on: () => {
    const names = new Set(leaving().map((point) => nameOf(shapeOf(point))));
    return names.size === 1 && names.has(name);
  },
  why: () => points() ?? (leaving().length > 0 ? null : "No segment leaves the last point."),
  run: () => {
    const choice = choiceNow();
    if (!choice) return;
    const { id, points: all } = choice.envelope;
    const indexes = leavingOf(choice.envelope, choice.chosen);
    return edit("shape_segments", {
      envelope_id: id,
      runs: runsOf(indexes),
      shape: made(name, shapeOf(all[indexes[0]])),
    });
  },
}));

/** What can be done to the chosen points, or to the chosen span. */
export const POINT_COMMANDS: Command[] = [
  {
    id: "value",
    words: "Type its value",
    what: "In its unit, such as 440 Hz or -6 dB",
    Icon: TextCursorInput,
    held: "Enter",
    why: points,
    run: () => {
      const choice = choiceNow();
      if (choice) openField("at-hand", "exact-value", () => focusPoint(choice.envelope.id, choice.chosen[0]));
    },
  },
  {
    id: "copy",
    words: "Copy",
    what: "To be pasted on any envelope",
    Icon: Copy,
    held: "Ctrl C",
    common: "both",
    why: stretch,
    run: copyStretch,
  },
  {
    id: "cut",
    words: "Cut",
    what: "Copied, and taken out",
    Icon: Scissors,
    held: "Ctrl X",
    common: "span",
    why: stretch,
    run: cutStretch,
  },
  {
    id: "paste",
    words: "Paste",
    what: "What was copied, where the playhead stands",
    Icon: ClipboardPaste,
    held: "Ctrl V",
    placed: true,
    why: copied,
    run: pasteStretch,
  },
  {
    id: "paste-here",
    words: "Paste at the pointer",
    what: "What was copied, under the pointer",
    Icon: ClipboardPaste,
    held: "Ctrl Shift V",
    placed: true,
    why: copied,
    run: pasteAtPointer,
  },
  {
    id: "paste-value",
    words: "Paste value",
    what: "What was copied at a knob, into the chosen points",
    whatNow: () => pasteWords(unitNow() ?? ""),
    why: () => valuePaste(),
    run: () => {
      const choice = choiceNow();
      const value = copiedValue()?.text;
      const into = choice && { envelope_id: choice.envelope.id, runs: runsOf(choice.chosen) };
      return into && value ? edit("enter_points", { ...into, value }) : null;
    },
  },
  {
    id: "all",
    words: "Choose all",
    what: "Every point of the envelope",
    held: "Ctrl A",
    why: envelope,
    run: () => {
      const choice = choiceNow();
      if (!choice) return;
      const { id, points: all } = choice.envelope;
      chooseMany(
        id,
        all.map((_, i) => i),
        chosenNow().windowFrom,
      );
    },
  },
  {
    id: "put",
    words: "Put a point",
    what: "On the line, where the playhead stands",
    key: "put",
    placed: true,
    why: envelope,
    run: putPoint,
  },
  {
    id: "enter",
    words: "Go to the points",
    what: "The keyboard goes to the points of the envelope in hand",
    key: "enter",
    why: () => (choiceNow() || chosenRegions().length > 0 ? null : NO_ENVELOPE),
    run: enter,
  },
  {
    id: "layer",
    words: "Next layer",
    what: "The next envelope of the parameter shown comes into hand",
    key: "layer",
    why: () => (layers().some((list) => layersOf(list).length > 1) ? null : ONE_LAYER),
    run: nextLayer,
  },
  {
    id: "again",
    words: "Again",
    what: "Once more, right after itself",
    Icon: CopyPlus,
    held: "Ctrl D",
    common: "both",
    why: stretch,
    run: duplicateStretch,
  },
  {
    id: "keep",
    words: "Keep",
    what: "In the satchel, to drop it on anything; or drag it there",
    Icon: Backpack,
    common: "both",
    press: pressKeep,
    why: stretch,
    run: showKeeping,
  },
  {
    id: "fade-in",
    words: "Fade in",
    what: "From silence up to the level after the span",
    Icon: ArrowUpRight,
    common: "span",
    why: span,
    run: () => fade("in"),
  },
  {
    id: "fade-out",
    words: "Fade out",
    what: "From the level before the span to silence",
    Icon: ArrowDownRight,
    common: "span",
    why: span,
    run: () => fade("out"),
  },
  ...SHAPE_COMMANDS,
  {
    id: "edit",
    words: "Edit …",
    what: "Everything else that can be done with them, in the panel",
    Icon: PanelRight,
    why: stretch,
    run: () => setView({ sheet: "at-hand", panelOpen: true }),
  },
  {
    id: "remove",
    words: "Remove",
    what: "The points; the line goes on without them",
    Icon: Trash2,
    held: "Delete",
    removes: true,
    common: "points",
    why: points,
    run: () => {
      const choice = choiceNow();
      if (!choice) return;
      removePoints(choice.envelope.id, choice.chosen);
      focusPoint(choice.envelope.id, Math.max(0, choice.chosen[0] - 1));
    },
  },
];

/** Those that are done most with chosen points, or with a span. */
export const commonOfPoints = (span: boolean): Command[] =>
  POINT_COMMANDS.filter(({ common }) => common === "both" || common === (span ? "span" : "points"));
