import type { Corners, Px, TouchedPoint } from "../../api/types";
import { type Ground, tickAt, valueAt, xOf, yOf } from "../../geometry/hit";
import type { Hand } from "../../state/hand";
import { useReading } from "../../state/reading";
import { useView } from "../../state/view";
import type { SayPosition } from "./useSay";
import { Words } from "./Words";

interface Props {
  ground: Ground;
  hand: Hand;
  touched: TouchedPoint[] | undefined;
  /** The curve as it is being tried. */
  corners: Corners;
  say: SayPosition;
}

/** Beside a hand at work: the value and the place of what it moves or draws. */
export function HandWords({ ground, hand, touched, corners, say }: Props) {
  const { envelope } = ground;
  const tool = useView((state) => state.tool);
  const shown: Ground = { ...ground, corners };
  const point = hand.index === null ? touched?.[0] : touched?.find((other) => other.index === hand.index);
  const end = hand.trail?.[hand.trail.length - 1];
  const draws = end !== undefined && tool !== "points" && tool !== "lasso";
  const level = draws && tool !== "rub" ? valueAt(ground, end[1]) : null;
  const { amount } = hand;
  const read = useReading(
    amount !== undefined
      ? { envelope_id: envelope.id, amount }
      : level === null
        ? null
        : { envelope_id: envelope.id, value: level },
  );
  const drawn = draws ? [read, say(tickAt(ground, end[0]))].filter(Boolean).join(" · ") : null;
  const told = point && [point.text, point.position ?? say(point.tick)].filter(Boolean).join(" · ");
  const words = hand.words ?? (amount === undefined ? drawn : read) ?? told ?? null;
  const spot: [Px, Px] | null =
    end ??
    (point
      ? [xOf(shown, point.tick), yOf(shown, point.value)]
      : hand.index != null
        ? [xOf(shown, envelope.points[hand.index]?.tick ?? 0), yOf(shown, envelope.points[hand.index]?.value ?? 0)]
        : null);
  if (!words || !spot) return null;
  return <Words x={spot[0]} y={spot[1]} text={words} finger={hand.finger} />;
}
