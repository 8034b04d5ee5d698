import { useEffect } from "react";
import { byHeld, byKey } from "../commands";
import { does } from "../commands/command";
import { barTicks, meterAt } from "../geometry/viewport";
import { chosenRegions } from "../gestures/choosing";
import { backToNote, regionOfNotes, walkNotes } from "../gestures/goTo";
import { heldNoteKey, noteKey } from "../gestures/notes";
import { allOff, noteOff, noteOn } from "../gestures/playIn";
import { focusPoint, nudge, walk } from "../gestures/points";
import { nudgeRegions, paste } from "../gestures/regions";
import { typedPitch } from "../panels/keys/pitches";
import { player } from "../sound/player";
import { chosenNow, setChoice } from "../state/choice";
import { choiceNow } from "../state/choosing";
import { endDriving } from "../state/driving";
import { step } from "../state/edits";
import { handNow } from "../state/hand";
import { commandOf } from "../state/keyMap";
import { lookup } from "../state/lookup";
import { chooseNotes, chosenNotes } from "../state/noteChoice";
import { playInNow, setPlayIn } from "../state/playIn";
import { song } from "../state/song";
import { transportNow } from "../state/transport";
import { setView } from "../state/view";
import { isDriving } from "../state/whoDrives";
import { openField, setWishes } from "../state/wishes";
import { byPointer } from "./focusKeeper";

const typing = (target: EventTarget | null) =>
  target instanceof HTMLElement && (target.matches("input, select, textarea") || target.isContentEditable);

/** In a field with nothing typed, undo and redo mean the song. */
const meansSong = ({ target, key, ctrlKey, metaKey }: KeyboardEvent) =>
  (ctrlKey || metaKey) && /^[zy]$/i.test(key) && target instanceof HTMLInputElement && !("typed" in target.dataset);

const onNote = (target: EventTarget | null) => target instanceof SVGElement && target.classList.contains("note-body");
const onPoint = (target: EventTarget | null) => target instanceof SVGElement && target.classList.contains("mark");

/** Keys with Ctrl or Command: the song's steps, and what they mean for what is chosen or was copied. */
function onHeld(key: string, event: KeyboardEvent): boolean {
  if (key === "z") void step(event.shiftKey ? "redo" : "undo");
  else if (key === "y") void step("redo");
  else if (key.startsWith("arrow")) return chosenNotes() !== null && heldNoteKey(key, event.shiftKey);
  else return runHeld(`Ctrl ${event.shiftKey ? "Shift " : ""}${key.toUpperCase()}`);
  return true;
}

function runHeld(held: string): boolean {
  const command = byHeld(held);
  if (command) void command.run();
  // Nothing was copied: it says so.
  else if (held === "Ctrl V") paste();
  else return false;
  return true;
}

/** Where the keyboard goes from a point that is let go of: its region, or the track of its lane. */
function upFromPoint(): void {
  const { envelopeId, windowFrom } = chosenNow();
  const { model } = song();
  const owner = envelopeId ? model.envelopes[envelopeId]?.owner : undefined;
  if (!owner) return;
  const clipId = owner.replace("clip/", "");
  const region = (lookup(model).placed[clipId] ?? []).find(({ start_tick }) => start_tick === windowFrom);
  if (region) setWishes({ region: region.id });
  else if (owner.startsWith("track/")) setWishes({ header: owner.slice("track/".length) });
}

/** Escape: nothing is chosen. */
function letGo(event: KeyboardEvent): void {
  if (isDriving()) return endDriving();
  if (playInNow().typing) return setPlayIn({ typing: false });
  if (onPoint(event.target)) upFromPoint();
  if (onNote(event.target)) setWishes({ region: regionOfNotes()?.id ?? null });
  chooseNotes(null, []);
  setChoice({ chosen: [], span: null, regionId: null, regionIds: [] });
  setView({ gather: false });
}

const seekBars = (bars: number): void =>
  player.seek(transportNow().playhead + bars * barTicks(meterAt(song().model.head.meters, transportNow().playhead)));

/** Keys that mean the same everywhere. */
function onNamed(key: string, event: KeyboardEvent): boolean {
  if (key === "Home") player.seek(0);
  else if (key === "PageDown") seekBars(1);
  else if (key === "PageUp") seekBars(-1);
  else if (key === "Escape") letGo(event);
  else if (key === "Delete" || key === "Backspace") return runHeld("Delete");
  else if (key === "F2") return runHeld("F2");
  else if (chosenNotes()) return onNotes(key, event);
  else if (choiceNow()?.chosen.length) return onChosen(key, event);
  else if (chosenRegions().length > 0) return nudgeRegions(key, event.shiftKey);
  else return false;
  return true;
}

/** Keys for the chosen notes. */
function onNotes(key: string, event: KeyboardEvent): boolean {
  if (onNote(event.target) && key === "Tab") return walkNotes(event.shiftKey ? -1 : 1);
  if (onNote(event.target) && (key === "Enter" || /^\d$/.test(key))) {
    setWishes({ field: "choice-value", back: backToNote, typed: key === "Enter" ? null : key });
    return true;
  }
  return noteKey(key, event.shiftKey);
}

/** Keys for the chosen points. */
function onChosen(key: string, event: KeyboardEvent): boolean {
  const choice = choiceNow();
  if (!choice) return false;
  const { envelope, chosen } = choice;
  if (key === "Enter" && (onPoint(event.target) || event.target === document.body)) {
    openField("at-hand", "exact-value", () => focusPoint(envelope.id, chosen[0]));
  } else if (/^\d$/.test(key) && onPoint(event.target)) {
    openField("at-hand", "exact-value", () => focusPoint(envelope.id, chosen[0]), key);
  } else if (key === "Tab" && onPoint(event.target)) return walk(event.shiftKey ? -1 : 1);
  else return nudge(key, event.shiftKey);
  return true;
}

/** What stands over the song has the keys to itself. */
const overSong = (target: EventTarget | null) =>
  target instanceof Element && target.closest("[role=dialog], [role=menu]") !== null;

/** While the computer's keyboard plays, its letters are notes. */
function onPlayed(event: KeyboardEvent): boolean {
  const pitch = typedPitch(event.code);
  if (!playInNow().typing || pitch === null) return false;
  if (!event.repeat) noteOn(pitch, playInNow().velocity, event.timeStamp);
  return true;
}

function onKeyUp(event: KeyboardEvent): void {
  const pitch = typedPitch(event.code);
  if (playInNow().typing && pitch !== null) noteOff(pitch, event.timeStamp);
}

function onKey(event: KeyboardEvent): void {
  if (overSong(event.target)) return;
  if (event.defaultPrevented || handNow().hand || (typing(event.target) && !meansSong(event))) return;
  if (event.ctrlKey || event.metaKey) {
    if (onHeld(event.key.toLowerCase(), event)) event.preventDefault();
    return;
  }
  if (event.altKey) return;
  if (onPlayed(event)) return event.preventDefault();
  const key = commandOf(event);
  if (!key && !onNamed(event.key, event)) return;
  event.preventDefault();
  if (key) does(byKey(key));
}

const BUTTONS = "button, [role=tab], [role=menuitem], a[href]";

/** Space plays, whatever was pressed last; it presses a button only where the keyboard went to it. */
function onSpace(event: KeyboardEvent): void {
  const { target } = event;
  if (event.key !== " " || event.ctrlKey || event.metaKey || event.altKey || typing(target)) return;
  if (target instanceof Element && target.matches(BUTTONS) && !byPointer()) return;
  event.preventDefault();
  event.stopPropagation();
  if (!event.repeat) player.toggle();
}

/** A button that was left with the pointer does not hear the key come up either. */
function onSpaceUp(event: KeyboardEvent): void {
  if (event.key !== " " || typing(event.target) || !byPointer()) return;
  event.preventDefault();
  event.stopPropagation();
}

export function useKeys(): void {
  useEffect(() => {
    window.addEventListener("keydown", onSpace, true);
    window.addEventListener("keyup", onSpaceUp, true);
    window.addEventListener("keydown", onKey);
    window.addEventListener("keyup", onKeyUp);
    window.addEventListener("blur", allOff);
    return () => {
      window.removeEventListener("keydown", onSpace, true);
      window.removeEventListener("keyup", onSpaceUp, true);
      window.removeEventListener("keydown", onKey);
      window.removeEventListener("keyup", onKeyUp);
      window.removeEventListener("blur", allOff);
    };
  }, []);
}
