import { type PointerEvent, useEffect, useRef, useState } from "react";
import type { Corners, Px, Ticks, Window } from "../../api/types";
import { type Found, type Ground, type Hit, hitAmong, inside, tickAt, xOf, yOfAmount } from "../../geometry/hit";
import { aim, fingers, type Pressed, pressEnvelope, tapNothing } from "../../gestures/ground";
import { useMarkTouch } from "../../gestures/markTouch";
import { envelopeMenu, restOnEnvelope } from "../../gestures/menus";
import { chosenNow } from "../../state/choice";
import { pointAt } from "../../state/clipboard";
import { useHand } from "../../state/hand";
import { useSong } from "../../state/song";
import { useView, viewNow } from "../../state/view";
import { CurvePath } from "../CurvePath";
import { ChoiceBox } from "./ChoiceBox";
import { Foretold } from "./Foretold";
import { HandWords } from "./HandWords";
import { LimitLines } from "./LimitLines";
import { Marks } from "./Marks";
import { useSayPosition } from "./useSay";

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

/** Where a pointer is over a window, with what tells how it aims. */
interface Pointed {
  x: Px;
  y: Px;
  pointerType: string;
  ctrlKey: boolean;
  metaKey: boolean;
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
  const pointer = useRef<Pointed | null>(null);
  const rect = useRef<SVGRectElement>(null);
  const clip = useSong(({ model }) => model.clips[envelope.owner.slice("clip/".length)]);
  const say = useSayPosition(clip);
  const left = xOf(ground, inside(stretch, from));
  const shown: Ground = { ...ground, corners };

  const place = (event: { clientX: number; clientY: number }): [Px, Px] => {
    const box = rect.current?.ownerSVGElement?.getBoundingClientRect() ?? { left: 0, top: 0 };
    return [event.clientX - box.left, event.clientY - box.top];
  };

  // What an edit made of it lies under a pointer that has not moved since.
  // biome-ignore lint/correctness/useExhaustiveDependencies: looked at again just when the envelope is another
  useEffect(() => {
    const at = pointer.current;
    if (at) setHover(aim([ground, ...beside], at.x, at.y, at));
  }, [envelope]);

  useMarkTouch(rect, (touch) => {
    const [x, y] = place(touch);
    const { hit, ground: own } = hitAmong([ground, ...beside], x, y, true, viewNow().ways.whole);
    if (viewNow().tool !== "points") return "chosen";
    if (hit.kind === "ground" || hit.kind === "line") return "bare";
    const { envelopeId, chosen } = chosenNow();
    if (!("index" in hit)) return "chosen";
    return envelopeId === own.envelope.id && chosen.includes(hit.index) ? "chosen" : "mark";
  });

  const pressed = (event: { clientX: number; clientY: number }): Pressed => ({
    ground,
    beside,
    place: place(event),
    onGround,
  });
  const press = (event: PointerEvent) => {
    if (event.button !== 0) return;
    pointer.current = null;
    setHover(null);
    if (tool === "points") restOnEnvelope(event, pressed(event));
    pressEnvelope(event, pressed(event));
  };

  const inView: Window = [
    Math.max(from, view[0]),
    Math.min(to, view[1]),
    inside(stretch, Math.max(from, view[0])),
    stretch[3],
  ];
  const draws = Boolean(hand?.trail?.length) && tool !== "points" && tool !== "lasso";
  return (
    <g>
      {ground.band.low < 0 && (
        <path d={`M${left} ${yOfAmount(ground, 0)}H${to * ground.pxPerTick}`} className="zero-line" />
      )}
      <LimitLines ground={ground} left={left} right={to * ground.pxPerTick} />
      <CurvePath
        still={ground.corners}
        tried={corners === ground.corners ? undefined : corners}
        patches={patches}
        window={inView}
        plot={(tick, value) => [tick * ground.pxPerTick, yOfAmount(ground, value)]}
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
          if (fingers(event)) return;
          const [x, y] = place(event);
          pointer.current = { x, y, pointerType: event.pointerType, ctrlKey: event.ctrlKey, metaKey: event.metaKey };
          if (hand) return;
          setHover(aim([ground, ...beside], x, y, event));
          pointAt(envelope.id, tickAt(ground, x));
        }}
        onPointerLeave={() => {
          pointer.current = null;
          setHover(null);
        }}
        onPointerDown={press}
        onContextMenu={(event) => envelopeMenu(event, pressed(event))}
        onClick={(event) =>
          (event.nativeEvent as globalThis.PointerEvent).pointerType === "touch" && tapNothing(pressed(event))
        }
      />
      {!(draws && corners !== ground.corners) && (
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
      {hover && !hand && <Foretold ground={hover.ground} hover={hover.hit} tool={tool} say={say} />}
      {hand && <HandWords ground={ground} hand={hand} touched={touched} corners={corners} say={say} />}
    </g>
  );
}

const CURSORS: Record<Hit["kind"], string> = {
  point: "grab",
  bend: "ns-resize",
  skew: "ew-resize",
  segment: "move",
  low: "ns-resize",
  high: "ns-resize",
  line: "copy",
  ground: "default",
};
