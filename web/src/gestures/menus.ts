import type { MouseEvent } from "react";
import type { RegionPart } from "../api/types";
import { setChoice } from "../state/choice";
import { choiceNow, choose } from "../state/choosing";
import { type Kind, openMenu } from "../state/menu";
import { viewNow } from "../state/view";
import { chosenRegions, select } from "./choosing";
import { giveUpDrags } from "./drag";
import { aim, type Pressed } from "./ground";

/** Opens it where the hand is; from a key, where the thing stands. */
function open(event: MouseEvent, kind: Kind): void {
  event.preventDefault();
  event.stopPropagation();
  giveUpDrags();
  const { left, top } = event.currentTarget.getBoundingClientRect();
  const byKey = event.clientX === 0 && event.clientY === 0;
  openMenu(kind, byKey ? left : event.clientX, byKey ? top : event.clientY);
}

/** A right or long press on a region: what can be done to it, and to all chosen with it. */
export function regionMenu(event: MouseEvent, region: RegionPart): void {
  if (!chosenRegions().some(({ id }) => id === region.id)) select(region);
  open(event, "regions");
}

/** The same on an envelope: to the point under the hand, or to what is chosen of it. */
export function envelopeMenu(event: MouseEvent, { ground, beside, place: [x, y] }: Pressed): void {
  if (viewNow().tool === "points") {
    const mouse = { pointerType: "mouse", ctrlKey: false, metaKey: false };
    const { ground: aimed, hit } = aim([ground, ...beside], x, y, mouse);
    const choice = choiceNow();
    const among =
      choice?.envelope.id === aimed.envelope.id && hit.kind === "point" && choice.chosen.includes(hit.index);
    if (hit.kind === "point" && !among) choose(aimed.envelope.id, hit.index, "only", aimed.window[0]);
    else if (choice?.envelope.id !== aimed.envelope.id)
      setChoice({ envelopeId: aimed.envelope.id, chosen: [], span: null, windowFrom: aimed.window[0] });
  }
  open(event, "points");
}

/** The same on the bar numbers; what stands on them, markers and the ends of the range, is only held. */
export function barMenu(event: MouseEvent): void {
  const target = event.target as Element;
  if (target === event.currentTarget || target.closest("[data-number]")) open(event, "bars");
  else event.preventDefault();
}
