import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Corners, Px, Ticks, Window } from "../../api/types";
import {
  type Found,
  type Ground,
  type Hit,
  hitAmong,
  inside,
  outside,
  tickAt,
  valueAt,
  xOf,
  yOf,
} from "../../geometry/hit";
import { snapTick } from "../../geometry/viewport";
import { pressMark } from "../../gestures/bends";
import { isDouble } from "../../gestures/hand";
import { addPoint, lineAt, pressLine, pressPoint, pressSegment, tapLine } from "../../gestures/points";
import { pressFreehand, pressLasso, pressRamp, pressRange, pressRub, pressSteps } from "../../gestures/strokes";
import { setChoice } from "../../state/choice";
import { chooseNone } from "../../state/choosing";
import { pointAt } from "../../state/clipboard";
import { gridNow } from "../../state/grid";
import { useHand } from "../../state/hand";
import { useReading } from "../../state/reading";
import { useSong } from "../../state/song";
import { type Tool, useView, viewNow } from "../../state/view";
import { CurvePath } from "../CurvePath";
import { ChoiceBox } from "./ChoiceBox";
import { Foretold } from "./Foretold";
import { Marks } from "./Marks";
import { useSayPosition } from "./useSay";
import { Words } from "./Words";

interface Props {
  ground: Ground;
  /** Where the envelope goes on before and after, without a gap. */
  beside: Ground[];
  /** The curve as it is being tried. */
  corners: Corners;
  height: Px;
  name: string;
  line: "stitched" | "solid-line";
  view: [from: Ticks, to: Ticks];
  /** How far the reach of the hand goes beyond the window's ends, where no other window follows. */
  ends: [Px, Px];
  onGround?: (tick: Ticks) => void;
}

const STROKES: Partial<Record<Tool, (event: PointerEvent, ground: Ground, start: [Px, Px]) => void>> = {
  freehand: pressFreehand,
  steps: pressSteps,
  ramp: pressRamp,
  rub: pressRub,
  range: pressRange,
};

/** As far from its middle a point is still pressed itself; a finger's tap further off, on the line, adds one. */
const MARK: Px = 11;

/** What a tap beside a point means where it is on the line: a point of its own. */
function tapOnLine(ground: Ground, x: Px, y: Px): (() => void) | null {
  const spot = lineAt(ground, x, false);
  if (!spot || Math.abs(yOf(ground, spot.value) - y) > 2 * MARK) return null;
  return () => void addPoint({ envelope_id: ground.envelope.id, tick: spot.tick });
}

const fingers = (event: { pointerType: string }) => event.pointerType === "touch";

/** What a press would do at a place, with the tool at hand. */
function aim(
  grounds: Ground[],
  x: Px,
  y: Px,
  event: { pointerType: string; ctrlKey: boolean; metaKey: boolean },
): Found {
  if (viewNow().tool !== "points") return { ground: grounds[0], hit: { kind: "ground", x, y } };
  return hitAmong(grounds, x, y, fingers(event), event.ctrlKey || event.metaKey || viewNow().ways.whole);
}

/** One envelope in one window: its line, its marks, and everything a press on them does. */
export function WindowEditor({ ground, beside, corners, height, name, line, view, ends, onGround }: Props) {
  const { envelope, window: stretch } = ground;
  const [from, to] = stretch;
  const tool = useView((state) => state.tool);
  const hand = useHand((state) =>
    state.hand?.envelopeId === envelope.id && state.hand.windowFrom === from ? state.hand : null,
  );
  const patches = useSong((state) => state.preview?.patches?.curves[envelope.id]);
  const touched = useSong((state) => (hand ? state.preview?.points[envelope.id] : undefined));
  const [hover, setHover] = useState<Found | null>(null);
  const rect = useRef<SVGRectElement>(null);
  const say = useSayPosition();
  const left = xOf(ground, inside(stretch, from));
  const shown: Ground = { ...ground, corners };

  const place = (event: { clientX: number; clientY: number }): [Px, Px] => {
    const box = rect.current?.ownerSVGElement?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return [event.clientX - box.left, event.clientY - box.top];
  };

  // A finger that comes down on something to hold has come to move it, not to scroll.
  useEffect(() => {
    const element = rect.current;
    const onTouch = (event: TouchEvent) => {
      const [x, y] = place(event.touches[0]);
      const { kind } = hitAmong([ground, ...beside], x, y, true, viewNow().ways.whole).hit;
      const holds = viewNow().tool !== "points" || (kind !== "ground" && kind !== "line");
      if (event.touches.length === 1 && holds) event.preventDefault();
    };
    element?.addEventListener("touchstart", onTouch, { passive: false });
    return () => element?.removeEventListener("touchstart", onTouch);
  });

  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    const [x, y] = place(event);
    setHover(null);
    const tool = viewNow().tool;
    const stroke = STROKES[tool];
    if (stroke) return stroke(event, ground, [x, y]);
    const { ground: aimed, hit } = aim([ground, ...beside], x, y, event);
    if (hit.kind === "point") {
      const line = fingers(event) && Math.hypot(hit.x - x, hit.y - y) > MARK ? tapOnLine(aimed, x, y) : null;
      return pressPoint(event, aimed, hit.index, line ?? undefined);
    }
    if (hit.kind === "segment") return pressSegment(event, ground, hit.index);
    if (hit.kind === "bend" || hit.kind === "skew") return pressMark(event, ground, hit);
    const spot =
      hit.kind === "line"
        ? lineAt(ground, x, event.altKey)
        : envelope.points.length === 0 && tool === "points"
          ? { tick: Math.max(0, Math.round(tickAt(ground, x))), value: valueAt(ground, y) }
          : null;
    if (spot && fingers(event)) return tapLine(event, ground, spot.tick, hit.kind === "line" ? null : spot.value);
    if (spot) return pressLine(event, ground, spot.tick, hit.kind === "line" ? null : spot.value, y);
    const still = () => {
      if (!fingers(event) && tool === "points" && isDouble(`ground ${envelope.id}`, event.timeStamp)) {
        const tick = Math.max(0, Math.round(inside(stretch, snapTick(outside(stretch, tickAt(ground, x)), gridNow()))));
        return void addPoint({ envelope_id: envelope.id, tick, value: valueAt(ground, y) });
      }
      chooseNone();
      setChoice({ envelopeId: envelope.id });
      onGround?.(outside(stretch, tickAt(ground, x)));
    };
    if (!fingers(event) || tool === "lasso") pressLasso(event, ground, [x, y], still);
  };

  const inView: Window = [
    Math.max(from, view[0]),
    Math.min(to, view[1]),
    inside(stretch, Math.max(from, view[0])),
    stretch[3],
  ];
  const point = hand?.index === null ? touched?.[0] : touched?.find((other) => other.index === hand?.index);
  const end = hand?.trail?.[hand.trail.length - 1];
  const draws = end !== undefined && tool !== "points" && tool !== "lasso";
  const level = draws && tool !== "rub" ? valueAt(ground, end[1]) : null;
  const read = useReading(level === null ? null : { envelope_id: envelope.id, value: level });
  const drawn = draws ? [read, say(tickAt(ground, end[0]))].filter(Boolean).join(" · ") : null;
  const told = point && [point.text, point.position ?? say(point.tick)].filter(Boolean).join(" · ");
  const words = hand && (hand.words ?? drawn ?? told ?? null);
  const spot: [Px, Px] | null =
    end ??
    (point
      ? [xOf(shown, point.tick), yOf(shown, point.value)]
      : hand?.index != null
        ? [xOf(shown, envelope.points[hand.index]?.tick ?? 0), yOf(shown, envelope.points[hand.index]?.value ?? 0)]
        : null);
  return (
    <g>
      {ground.band.low < 0 && <path d={`M${left} ${yOf(ground, 0)}H${to * ground.pxPerTick}`} className="zero-line" />}
      <CurvePath
        still={ground.corners}
        tried={corners === ground.corners ? undefined : corners}
        patches={patches}
        window={inView}
        plot={(tick, value) => [tick * ground.pxPerTick, yOf(ground, value)]}
        scale={`${ground.pxPerTick} ${height} ${ground.band.low}`}
        className={line}
        testId={`line-${envelope.id}`}
      />
      {/* biome-ignore lint/a11y/noStaticElementInteractions: the points above it take the keyboard */}
      <rect
        ref={rect}
        x={left - ends[0]}
        y={0}
        width={Math.max(1, (to - from) * ground.pxPerTick) + ends[0] + ends[1]}
        height={height}
        className="ground"
        style={{ cursor: hover ? CURSORS[hover.hit.kind] : tool === "points" ? "default" : "crosshair" }}
        data-testid={`ground-${envelope.id}`}
        onPointerMove={(event) => {
          if (fingers(event) || hand) return;
          const [x, y] = place(event);
          setHover(aim([ground, ...beside], x, y, event));
          pointAt(envelope.id, tickAt(ground, x));
        }}
        onPointerLeave={() => setHover(null)}
        onPointerDown={press}
        onClick={(event) => {
          if (viewNow().tool !== "points" || (event.nativeEvent as globalThis.PointerEvent).pointerType !== "touch")
            return;
          const [x, y] = place(event);
          if (
            aim([ground, ...beside], x, y, { pointerType: "touch", ctrlKey: false, metaKey: false }).hit.kind !==
            "ground"
          )
            return;
          chooseNone();
          onGround?.(outside(stretch, tickAt(ground, place(event)[0])));
        }}
      />
      {!(drawn && corners !== ground.corners) && (
        <Marks
          ground={shown}
          touched={hand?.kind === "move" || hand?.kind === "bend" ? touched : undefined}
          added={hand?.kind === "add" ? touched : undefined}
          hover={hover?.ground === ground ? hover.hit : null}
          view={view}
          round={line === "stitched"}
          name={name}
          say={say}
        />
      )}
      {!hand && <ChoiceBox ground={ground} height={height} />}
      {hand?.trail && <polyline points={hand.trail.map((spot) => spot.join(",")).join(" ")} className="trail" />}
      {hover && !hand && <Foretold ground={hover.ground} hover={hover.hit} tool={tool} height={height} say={say} />}
      {words && spot && <Words x={spot[0]} y={spot[1]} height={height} text={words} finger={hand?.finger} />}
    </g>
  );
}

const CURSORS: Record<Hit["kind"], string> = {
  point: "grab",
  bend: "ns-resize",
  skew: "ew-resize",
  segment: "move",
  line: "copy",
  ground: "default",
};
