import type { MouseEvent, PointerEvent } from "react";
import type { Px, RegionPart } from "../api/types";
import { setChoice } from "../state/choice";
import { choiceNow, choose } from "../state/choosing";
import { openMenu, type Subject } from "../state/menu";
import { chooseNotes, notesNow } from "../state/noteChoice";
import { viewNow } from "../state/view";
import { chosenRegions, select } from "./choosing";
import { giveUpDrags } from "./drag";
import { aim, type Pressed } from "./ground";
import { RESTED_MS, whenRested } from "./hold";
import { severalFingers } from "./touches";

/** Not every browser tells of a finger that rests as of a right press. */
function rested(event: PointerEvent, act: () => void): void {
  if (event.pointerType !== "touch" || severalFingers()) return;
  whenRested(event, RESTED_MS, () => severalFingers() || act());
}

function open(subject: Subject, x: Px, y: Px): void {
  giveUpDrags();
  openMenu(subject, x, y);
}

/** On anything that has a name of its own: what can be done to it. A finger rests for it. */
export function thingMenu(event: MouseEvent, subject: Subject): void {
  const place = placeOf(event);
  if ((event.nativeEvent as globalThis.PointerEvent).pointerType !== "touch") open(subject, ...place);
}
export const restOnThing = (event: PointerEvent, subject: Subject): void =>
  rested(event, () => open(subject, event.clientX, event.clientY));

/** Where a right press is; of the menu key, where the thing stands. */
function placeOf(event: MouseEvent): [Px, Px] {
  event.preventDefault();
  event.stopPropagation();
  const { left, top } = event.currentTarget.getBoundingClientRect();
  return event.clientX === 0 && event.clientY === 0 ? [left, top] : [event.clientX, event.clientY];
}

/** On a region: what can be done to it, and to all chosen with it. */
function openOnRegion(region: RegionPart, x: Px, y: Px): void {
  if (!chosenRegions().some(({ id }) => id === region.id)) select(region);
  open({ kind: "regions" }, x, y);
}

export const regionMenu = (event: MouseEvent, region: RegionPart): void => openOnRegion(region, ...placeOf(event));
export const restOnRegion = (event: PointerEvent, region: RegionPart): void =>
  rested(event, () => openOnRegion(region, event.clientX, event.clientY));

/** On a note: what can be done to it, and to all chosen with it. */
function openOnNote(clipId: string, index: number, x: Px, y: Px): void {
  const { clipId: known, chosen } = notesNow();
  if (known !== clipId || !chosen.includes(index)) chooseNotes(clipId, [index]);
  open({ kind: "notes" }, x, y);
}

export const noteMenu = (event: MouseEvent, clipId: string, index: number): void =>
  openOnNote(clipId, index, ...placeOf(event));
export const restOnNote = (event: PointerEvent, clipId: string, index: number): void =>
  rested(event, () => openOnNote(clipId, index, event.clientX, event.clientY));

/** On an envelope: what can be done to the point under the hand, or to what is chosen of it. */
function openOnEnvelope({ ground, beside, place: [x, y] }: Pressed, pointerType: string, at: [Px, Px]): void {
  if (viewNow().tool === "points") {
    const { ground: aimed, hit } = aim([ground, ...beside], x, y, { pointerType, ctrlKey: false, metaKey: false });
    const choice = choiceNow();
    const among =
      choice?.envelope.id === aimed.envelope.id && hit.kind === "point" && choice.chosen.includes(hit.index);
    if (hit.kind === "point" && !among) choose(aimed.envelope.id, hit.index, "only", aimed.window[0]);
    else if (choice?.envelope.id !== aimed.envelope.id)
      setChoice({ envelopeId: aimed.envelope.id, chosen: [], span: null, windowFrom: aimed.window[0] });
  }
  open({ kind: "points" }, ...at);
}

export const envelopeMenu = (event: MouseEvent, pressed: Pressed): void =>
  openOnEnvelope(pressed, "mouse", placeOf(event));
export const restOnEnvelope = (event: PointerEvent, pressed: Pressed): void =>
  rested(event, () => openOnEnvelope(pressed, "touch", [event.clientX, event.clientY]));

/** On the bar numbers; what stands on them, markers and the ends of the range, is only held. */
export function barMenu(event: MouseEvent): void {
  const target = event.target as Element;
  if (target === event.currentTarget || target.closest("[data-number]")) open({ kind: "bars" }, ...placeOf(event));
  else event.preventDefault();
}
