import { type KeyboardEvent, type PointerEvent, useRef, useState } from "react";
import type { Normalised } from "../../api/types";
import { drag } from "../../gestures/drag";
import type { Acting } from "../../state/acting";
import { heldIn, knobValue, type Owner, type Placed } from "../../state/catalogue";
import { edit } from "../../state/edits";
import { focusOn } from "../../state/focus";
import { previewer } from "../../state/previewer";
import { useReading } from "../../state/reading";
import { setSong, useSong } from "../../state/song";
import { useTransport } from "../../state/transport";
import { heardNow } from "./KnobFace";

/** A full turn takes this many pixels, unless said otherwise. */
const TRAVEL_PX = 170;

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
  const [turned, setTurned] = useState<Normalised | null>(null);
  const rest = turned ?? resting;
  const held = heldIn(owner, placed);
  const automated = !held && (acts.clip === "on" || acts.lane === "on");
  const heard = useHeard(address, automated);
  const exact = useSong((state) => state.exact[address]);
  const reading = useReading(turned === null ? null : { address, value: turned });
  const text = turned === null ? (exact?.[1] ?? "") : reading;
  const textNow = useRef<[Normalised, string] | null>(null);
  textNow.current = turned === null ? null : [turned, reading];
  const value = turned ?? heard ?? rest;
  const step = scale.steps ? 1 / scale.steps : 0.01;
  const set = (next: Normalised) => void edit("set_knob", { address, value: Math.min(Math.max(next, 0), 1) });

  const press = (event: PointerEvent) => {
    focusOn(address);
    const trial = previewer();
    // A finger that goes sideways scrolls, so it turns by going up and down.
    const upward = axis === "up" || event.pointerType === "touch";
    const way = ({ dx, dy }: { dx: number; dy: number }) => (upward ? -dy : dx);
    const wish = (reach: { dx: number; dy: number }) => Math.min(Math.max(resting + way(reach) / travel, 0), 1);
    const done = () => {
      const known = textNow.current;
      if (known) setSong(({ exact }) => ({ exact: { ...exact, [address]: known } }));
      setTurned(null);
    };
    drag(event, {
      move: (reach) => {
        setTurned(wish(reach));
        trial.ask("set_knob", { address, value: wish(reach) });
      },
      drop: (reach) => {
        trial.end(reach.moved);
        if (reach.moved) void edit("set_knob", { address, value: wish(reach) }).then(done);
        else if (scale.steps === 1) set(1 - resting);
      },
      cancel: () => {
        trial.end(false);
        done();
      },
    });
  };
  const onKey = (event: KeyboardEvent) => {
    const turn = { ArrowUp: 1, ArrowRight: 1, ArrowDown: -1, ArrowLeft: -1, PageUp: 10, PageDown: -10 }[event.key];
    const pace = event.shiftKey && !scale.steps ? 0.1 : 1;
    if (turn) set(rest + turn * step * pace);
    else if (event.key === "Home") set(0);
    else if (event.key === "End") set(1);
    else if (event.key === "Delete") set(entry.default);
    else if ((event.key === "Enter" || event.key === " ") && scale.steps === 1) set(1 - resting);
    else return;
    event.preventDefault();
    event.stopPropagation();
  };

  const toDefault = () => set(entry.default);
  return { value, rest, text, held, automated, press, onKey, toDefault };
}
