import type { KeyboardEvent, PointerEvent } from "react";
import type { EditInputs, EnvelopePart, ScaleEntry } from "../api/types";
import { edit } from "../state/edits";
import { previewer } from "../state/previewer";
import { drag, type Reach } from "./drag";

/** What a pixel up is worth: decibels for gains, a share of the travel for the rest. */
const DECIBELS_PER_PX = 0.1;
const SHARE_PER_PX = 1 / 250;

type Raise =
  | { name: "raise_envelope"; inputs: EditInputs["raise_envelope"] }
  | { name: "shift_points"; inputs: EditInputs["shift_points"] };

function raise(lane: EnvelopePart, scale: ScaleEntry, px: number): Raise {
  if (scale.gain && lane.role !== "scale")
    return {
      name: "raise_envelope",
      inputs: { envelope_id: lane.id, amount: `${(Math.round(px * DECIBELS_PER_PX * 10) / 10).toFixed(1)} dB` },
    };
  return {
    name: "shift_points",
    inputs: {
      envelope_id: lane.id,
      runs: [[0, lane.points.length - 1]],
      ticks: 0,
      value: Math.min(Math.max(px * SHARE_PER_PX, -1), 1),
    },
  };
}

const make = ({ name, inputs }: Raise) => (name === "raise_envelope" ? edit(name, inputs) : edit(name, inputs));

/** Raises or lowers all of a lane by one drag. */
export function pressRaise(event: PointerEvent, lane: EnvelopePart, scale: ScaleEntry): void {
  const trial = previewer();
  const wish = ({ dy }: Reach) => raise(lane, scale, -dy);
  drag(event, {
    move: (reach) => {
      const { name, inputs } = wish(reach);
      if (name === "raise_envelope") trial.ask(name, inputs);
      else trial.ask(name, inputs);
    },
    drop: (reach) => {
      trial.end(reach.moved);
      if (reach.moved) void make(wish(reach));
    },
    cancel: () => trial.end(false),
  });
}

/** By keys: half a decibel or 2 %, with Shift a fifth of that. */
export function raiseKey(event: KeyboardEvent, lane: EnvelopePart, scale: ScaleEntry): void {
  const side = { ArrowUp: 1, ArrowDown: -1 }[event.key];
  if (!side) return;
  event.preventDefault();
  event.stopPropagation();
  void make(raise(lane, scale, side * (event.shiftKey ? 1 : 5)));
}
