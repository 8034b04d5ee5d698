import { type KeyboardEvent, type MouseEvent, type PointerEvent, useEffect, useRef } from "react";
import type { Normalised } from "../../api/types";
import { drag } from "../../gestures/drag";
import { giveUp, isWritten, release, touch, turn, turnBriefly } from "../../gestures/hands";
import { restOnThing, thingMenu } from "../../gestures/menus";
import { type Acting, movesNow } from "../../state/acting";
import { heldIn, knobValue, type Owner, type Placed } from "../../state/catalogue";
import { driveIt } from "../../state/driving";
import { edit } from "../../state/edits";
import { focusOnKnob } from "../../state/focus";
import { heardNow } from "../../state/heardNow";
import { usePerforming } from "../../state/performing";
import { useReading } from "../../state/reading";
import { useSong } from "../../state/song";
import { useTransport } from "../../state/transport";
import { shows, typeValue } from "../../state/typing";
import { isDriving } from "../../state/whoDrives";

/** A full turn takes this many pixels, unless said otherwise. */
const TRAVEL_PX = 170;
/** Whose hand it is. */
const SCREEN = "the screen";

/** What is heard: while the playhead stands as the core says it, else as the curve has it. */
function useHeard(address: string, automated: boolean): Normalised | null {
  const still = useTransport((state) => (state.playing ? null : state.playhead));
  const exact = useSong((state) => state.exact[address]?.[0]);
  useSong((state) => (automated ? (state.preview?.heard[address] ?? state.heard[address]) : undefined));
  if (!automated) return null;
  return (still === null ? null : exact) ?? heardNow(address);
}

/** Which way a hand turns: up is more, or to the right is more. */
export type Axis = "up" | "across";

/** One parameter under a hand: what it shows, and what presses and keys do to it. */
export function useTurning(owner: Owner, placed: Placed, acts: Acting, axis: Axis = "up", travel = TRAVEL_PX) {
  const { address, entry, scale } = placed;
  const resting = knobValue(owner, placed);
  const turned = usePerforming((state) => state.hands[address]) ?? null;
  const rest = turned ?? resting;
  const held = heldIn(owner, placed);
  const automated = !held && movesNow(acts);
  const heard = useHeard(address, automated);
  const exact = useSong((state) => state.exact[address]);
  const reading = useReading(turned === null ? null : { address, value: turned });
  const text = turned === null ? (exact?.[1] ?? "") : reading;
  const value = turned ?? heard ?? rest;
  const step = scale.steps ? 1 / scale.steps : 0.01;
  // What was asked for and has not come back: keys pressed faster than the song answers go on from there.
  const asked = useRef<Normalised | null>(null);
  const set = (next: Normalised) => {
    const goal = Math.min(Math.max(next, 0), 1);
    if (isWritten(address)) return turnBriefly(address, goal, SCREEN);
    asked.current = goal;
    void edit("set_knob", { address, value: goal }).finally(() => {
      if (asked.current === goal) asked.current = null;
    });
  };

  const press = (event: PointerEvent) => {
    if (isDriving()) return void driveIt(address);
    focusOnKnob(address);
    // While something plays or is recorded, a finger that holds a knob holds its value.
    if (!useTransport.getState().playing) restOnThing(event, { kind: "knob", address });
    const way = ({ dx, dy }: { dx: number; dy: number }) => (axis === "up" ? -dy : dx);
    const start = touch(address, SCREEN, event.timeStamp);
    const follows = drag(
      event,
      {
        move: (reach) => turn(address, start + way(reach) / travel, SCREEN, reach.at),
        drop: (reach) => {
          if (!reach.moved && scale.steps === 1) turn(address, start < 0.5 ? 1 : 0, SCREEN, reach.at);
          release(address, SCREEN, reach.at);
        },
        cancel: () => giveUp(address, SCREEN),
      },
      "no",
      "each",
    );
    if (!follows) giveUp(address, SCREEN);
  };
  const onKey = (event: KeyboardEvent) => {
    if (isDriving() && (event.key === "Enter" || event.key === " ")) {
      event.preventDefault();
      event.stopPropagation();
      return void driveIt(address);
    }
    // Beside a knob stand others, to which arrows lead across.
    const across = axis === "across" ? { ArrowRight: 1, ArrowLeft: -1 } : {};
    const ways = { ArrowUp: 1, ArrowDown: -1, PageUp: 10, PageDown: -10, ...across };
    const by = ways[event.key as keyof typeof ways];
    const pace = event.shiftKey && !scale.steps ? 0.1 : 1;
    if (by) set((asked.current ?? rest) + by * step * pace);
    else if (event.key === "Home") set(0);
    else if (event.key === "End") set(1);
    else if (event.key === "Delete") set(entry.default);
    else if ((event.key === "Enter" || event.key === " ") && scale.steps === 1) set(1 - (asked.current ?? rest));
    else if (event.key === "Enter") typeValue(address, event.currentTarget);
    else return;
    // The track shows it once a hand does something with it; going past it shows nothing.
    focusOnKnob(address);
    event.preventDefault();
    event.stopPropagation();
  };

  const shower = useRef<HTMLDivElement>(null);
  useEffect(() => (shower.current ? shows(address, shower.current) : undefined), [address]);
  const type = (event: MouseEvent) => {
    if (scale.steps !== 1 && !isDriving()) typeValue(address, event.currentTarget);
  };
  const menu = (event: MouseEvent) => thingMenu(event, { kind: "knob", address });
  return { value, rest, text, held, automated, press, onKey, type, menu, shower };
}
