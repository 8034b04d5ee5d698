import type { Normalised, Px, Ticks } from "../../api/types";
import { type Ground, type Hit, limitsOf, tickAt, valueAt, xOf, yOfAmount } from "../../geometry/hit";
import { lineAt } from "../../gestures/points";
import { type Question, useReading } from "../../state/reading";
import type { Tool } from "../../state/view";
import type { SayPosition } from "./useSay";
import { Words } from "./Words";

const TOOL_WORDS: Partial<Record<Tool, string>> = {
  freehand: "draw freehand",
  steps: "draw steps on the grid",
  ramp: "draw a straight ramp",
  rub: "rub out",
  range: "choose a span",
  lasso: "loop around points",
};

interface Props {
  ground: Ground;
  hover: Hit;
  tool: Tool;
  say: SayPosition;
}

/** What a press here will do, before it is made: a ghost and a few words. */
export function Foretold({ ground, hover, tool, say }: Props) {
  switch (hover.kind) {
    case "ground":
      return <OnGround ground={ground} hover={hover} tool={tool} say={say} />;
    case "low":
    case "high":
      return <OnLimit ground={ground} end={hover.kind} x={hover.x} y={hover.y} />;
    case "line":
      return <OnLine ground={ground} x={hover.x} say={say} />;
    default:
      return <Words x={hover.x} y={hover.y} text={markWords(ground, hover, say)} />;
  }
}

/** A value and a position, the value once the core has read it. */
function usePlaceWords(words: string, question: Question | null, position: string): string {
  const text = useReading(question);
  return [words, text, position].filter(Boolean).join(" · ");
}

function OnGround({ ground, hover, tool, say }: Props) {
  const { points, id, source } = ground.envelope;
  const first = points.length === 0 && !source;
  const words = TOOL_WORDS[tool] ?? (first ? "add the first point" : null);
  const value: Normalised = valueAt(ground, hover.y);
  const levels = words !== null && tool !== "rub" && tool !== "range" && tool !== "lasso";
  const text = usePlaceWords(words ?? "", levels ? { envelope_id: id, value } : null, say(tickAt(ground, hover.x)));
  return words && <Words x={hover.x} y={hover.y} text={text} />;
}

function OnLine({ ground, x, say }: { ground: Ground; x: number; say: SayPosition }) {
  const spot = lineAt(ground, x, false);
  const tick: Ticks = spot?.tick ?? 0;
  const text = usePlaceWords(
    ground.envelope.source ? "LFO" : "add a point",
    spot && { envelope_id: ground.envelope.id, tick },
    say(tick),
  );
  if (!spot) return null;
  const [left, top] = [xOf(ground, spot.tick), yOfAmount(ground, spot.value)];
  return (
    <g pointerEvents="none">
      <circle cx={left} cy={top} r={4.6} className="handle" strokeDasharray="2 2" />
      <Words x={left} y={top} text={text} />
    </g>
  );
}

function OnLimit({ ground, end, x, y }: { ground: Ground; end: "low" | "high"; x: Px; y: Px }) {
  const amount = limitsOf(ground)?.[end] ?? 0;
  const text = usePlaceWords(`drag its ${end} end`, { envelope_id: ground.envelope.id, amount }, "");
  return <Words x={x} y={y} text={text} />;
}

function markWords({ envelope }: Ground, hover: Hit, say: SayPosition): string {
  if (!("index" in hover)) return "";
  const point = envelope.points[hover.index];
  switch (hover.kind) {
    case "point":
      return ["move this point", point.text, say(point.tick)].filter(Boolean).join(" · ");
    case "segment":
      return "move this segment, both its ends";
    case "bend":
      return point.shape === "cycle" ? "how often it swings: drag across" : "bend this segment: drag up or down";
    case "skew":
      return "skew the swing: drag across";
  }
}
