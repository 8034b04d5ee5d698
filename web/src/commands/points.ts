import {
  ArrowDownRight,
  ArrowUpRight,
  Backpack,
  Copy,
  CopyPlus,
  PanelRight,
  Scissors,
  TextCursorInput,
  Trash2,
} from "lucide-react";
import type { EnvelopePart } from "../api/types";
import { shapeOf } from "../gestures/bends";
import { focusPoint, removePoints } from "../gestures/points";
import { chosenNow } from "../state/choice";
import { choiceNow, runsOf, stretchNow } from "../state/choosing";
import { copyStretch, cutStretch, duplicateStretch, fade } from "../state/clipboard";
import { edit } from "../state/edits";
import { showKeeping } from "../state/satchel";
import { setView } from "../state/view";
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
      if (choice) openField("edit", "exact-value", () => focusPoint(choice.envelope.id, choice.chosen[0]));
    },
  },
  {
    id: "copy",
    words: "Copy",
    what: "To be pasted on any envelope",
    Icon: Copy,
    held: "Ctrl C",
    common: true,
    why: stretch,
    run: copyStretch,
  },
  {
    id: "cut",
    words: "Cut",
    what: "Copied, and taken out",
    Icon: Scissors,
    held: "Ctrl X",
    common: true,
    why: stretch,
    run: cutStretch,
  },
  {
    id: "again",
    words: "Again",
    what: "Once more, right after itself",
    Icon: CopyPlus,
    held: "Ctrl D",
    common: true,
    why: stretch,
    run: duplicateStretch,
  },
  {
    id: "keep",
    words: "Keep",
    what: "In the satchel, to drop it on anything; or drag it there",
    Icon: Backpack,
    common: true,
    why: stretch,
    run: showKeeping,
  },
  {
    id: "fade-in",
    words: "Fade in",
    what: "From silence up to the level after the span",
    Icon: ArrowUpRight,
    common: true,
    why: span,
    run: () => fade("in"),
  },
  {
    id: "fade-out",
    words: "Fade out",
    what: "From the level before the span to silence",
    Icon: ArrowDownRight,
    common: true,
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
    run: () => setView({ sheet: "edit", panelOpen: true }),
  },
  {
    id: "remove",
    words: "Remove",
    what: "The points; the line goes on without them",
    Icon: Trash2,
    held: "Delete",
    removes: true,
    why: points,
    run: () => {
      const choice = choiceNow();
      if (choice) removePoints(choice.envelope.id, choice.chosen);
    },
  },
];
