import type { PointerEvent } from "react";
import type { EditInputs, Px } from "../api/types";
import { amountAt, type Ground } from "../geometry/hit";
import { setChoice } from "../state/choice";
import { edit } from "../state/edits";
import { setHand } from "../state/hand";
import { previewer } from "../state/previewer";
import { byFinger, drag, type Reach } from "./drag";
import { finish } from "./hand";

/** Amounts under a hand come in steps of a thousandth of the travel. */
const STEPS = 1000;

/** Drags one of the amounts between which an envelope runs; the other one stays. */
export function pressLimit(event: PointerEvent, ground: Ground, end: "low" | "high", [x, y]: [Px, Px]): void {
  const { envelope, window } = ground;
  const trial = previewer();
  const amountOf = ({ dy }: Reach) => Math.round(amountAt(ground, y + dy) * STEPS) / STEPS;
  const inputs = (reach: Reach): EditInputs["set_limits"] => ({ envelope_id: envelope.id, [end]: amountOf(reach) });
  setChoice({ envelopeId: envelope.id });
  drag(event, {
    move: (reach) => {
      setHand({
        hand: {
          kind: "limit",
          envelopeId: envelope.id,
          index: null,
          amount: amountOf(reach),
          trail: [[x + reach.dx, y + reach.dy]],
          finger: byFinger(),
          windowFrom: window[0],
        },
      });
      trial.ask("set_limits", inputs(reach));
    },
    drop: (reach) => finish(trial, reach.moved ? () => edit("set_limits", inputs(reach)) : null),
    cancel: () => finish(trial, null),
  });
}
