import { useEffect } from "react";
import { barTicks } from "../geometry/viewport";
import { chosenRegions } from "../gestures/choosing";
import { addPoint, focusPoint, nudge, removePoints, walk } from "../gestures/points";
import { copy, paste, splitAtPointer } from "../gestures/regions";
import { pasteTime } from "../gestures/songTime";
import { player } from "../sound/player";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow, chooseMany, stretchNow } from "../state/choosing";
import {
  copyStretch,
  cutStretch,
  duplicateStretch,
  pasteAtPointer,
  pasteStretch,
  playheadIn,
} from "../state/clipboard";
import { step } from "../state/edits";
import { handNow } from "../state/hand";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setView, TOOLS, turnShowing } from "../state/view";
import { openField } from "../state/wishes";
import { fit, zoom } from "../table/scrolling";

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.matches("input, select, textarea") || target.isContentEditable);
/** In a field with nothing typed, undo and redo mean the song. */
const meansSong = ({ target, key, ctrlKey, metaKey }: KeyboardEvent) =>
  (ctrlKey || metaKey) && /^[zy]$/i.test(key) && target instanceof HTMLInputElement && !("typed" in target.dataset);
const onPoint = (target: EventTarget | null) => target instanceof SVGElement && target.classList.contains("mark");

/** Keys with Ctrl or Command. */
function onHeld(key: string, event: KeyboardEvent): boolean {
  const choice = choiceNow();
  const stretch = stretchNow();
  const regions = chosenRegions();
  const { clipboard } = chosenNow();
  if (key === "z") void step(event.shiftKey ? "redo" : "undo");
  else if (key === "y") void step("redo");
  else if (key === "a" && choice)
    chooseMany(
      choice.envelope.id,
      choice.envelope.points.map((_, i) => i),
      chosenNow().windowFrom,
    );
  else if (key === "c" && stretch) void copyStretch();
  else if (key === "x" && stretch) void cutStretch();
  else if (key === "d" && stretch) void duplicateStretch();
  else if (key === "c" && regions.length > 0) copy();
  else if (key === "v" && clipboard && "snippet" in clipboard)
    void (event.shiftKey ? pasteAtPointer() : pasteStretch());
  else if (key === "v" && clipboard && "stretch" in clipboard) pasteTime();
  else if (key === "v") paste();
  else return false;
  return true;
}

/** Keys by themselves. */
function onPlain(key: string, event: KeyboardEvent): boolean {
  const choice = choiceNow();
  const tool = TOOLS[Number(key) - 1];
  if (key === " " && !(event.target instanceof HTMLButtonElement)) player.toggle();
  else if (key === "home") player.seek(0);
  else if (key === "pagedown" || key === "pageup")
    player.seek(transportNow().playhead + (key === "pagedown" ? 1 : -1) * barTicks(song().model.head.meter));
  else if (key === "p") addAtPlayhead();
  else if (key === "/") openField("find", "finder");
  else if (key === "x") splitAtPointer();
  else if (key === "v") turnShowing();
  else if (key === "+" || key === "=") zoom(1.4);
  else if (key === "-") zoom(1 / 1.4);
  else if (key === "0") fit();
  else if (tool) setView({ tool });
  else if (key === "escape") letGo();
  else if (key === "e" && choice && choice.envelope.points.length > 0)
    focusPoint(choice.envelope.id, choice.chosen[0] ?? 0);
  else if (choice && choice.chosen.length > 0) return onChosen(key, event);
  else return false;
  return true;
}

/** Escape: nothing is chosen, no sheet is open. */
function letGo(): void {
  setChoice({ chosen: [], span: null, regionId: null, regionIds: [] });
  setView({ gather: false });
}

/** Keys for the chosen points. */
function onChosen(key: string, event: KeyboardEvent): boolean {
  const choice = choiceNow();
  if (!choice) return false;
  if (key === "delete" || key === "backspace") removePoints(choice.envelope.id, choice.chosen);
  else if (key === "enter" && (onPoint(event.target) || event.target === document.body))
    openField("edit", "exact-value");
  else if (key === "tab" && onPoint(event.target)) return walk(event.shiftKey ? -1 : 1);
  else return nudge(event.key, event.shiftKey);
  return true;
}

function onKey(event: KeyboardEvent): void {
  if (event.defaultPrevented || handNow().hand || (typing(event.target) && !meansSong(event))) return;
  const key = event.key.toLowerCase();
  const held = event.ctrlKey || event.metaKey;
  if (held ? onHeld(key, event) : onPlain(key, event)) event.preventDefault();
}

/** Puts a point of the envelope at hand where the playhead stands, on the line. */
function addAtPlayhead(): void {
  const choice = choiceNow();
  if (!choice) return;
  const tick = playheadIn(choice.envelope);
  void addPoint({
    envelope_id: choice.envelope.id,
    tick,
  }).then(() => focusPoint(choice.envelope.id, chosenNow().chosen[0] ?? 0));
}

export function useKeys(): void {
  useEffect(() => {
    window.addEventListener("keydown", onKey);
    return () => window.removeEventListener("keydown", onKey);
  }, []);
}
