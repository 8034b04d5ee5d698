import type { Px } from "../../api/types";
import { type Ground, inside, outside, xOf, yOf } from "../../geometry/hit";
import { pressEdge } from "../../gestures/points";
import { useChoice } from "../../state/choice";

const MARGIN: Px = 9;
/** The edges lie outside the reach of the points, which win. */
const OUT: Px = 18;

/** The box about the chosen points, with edges to stretch and to scale by; and the chosen stretch of time. */
export function ChoiceBox({ ground, height }: { ground: Ground; height: Px }) {
  const { envelope, window } = ground;
  const mine = useChoice((state) => state.envelopeId === envelope.id && state.windowFrom === window[0]);
  const chosen = useChoice((state) => state.chosen);
  const span = useChoice((state) => state.span);
  if (!mine) return null;
  const points = chosen.map((index) => envelope.points[index]).filter(Boolean);
  const range =
    span &&
    ([
      xOf(ground, Math.max(span[0], inside(window, window[0]))),
      xOf(ground, Math.min(span[1], inside(window, window[1]))),
    ] as const);
  const box = points.length > 1 && outside(window, points[0].tick) >= window[0] ? bounds(ground, points) : null;
  return (
    <>
      {range && range[1] > range[0] && (
        <rect x={range[0]} y={0} width={range[1] - range[0]} height={height} className="span" data-testid="span" />
      )}
      {box && box.right > box.left && (
        <g data-testid="choice">
          <rect
            x={box.left - MARGIN}
            y={box.top - MARGIN}
            width={box.right - box.left + 2 * MARGIN}
            height={box.bottom - box.top + 2 * MARGIN}
            rx={5}
            className="choice"
          />
          <Edge
            testId="stretch-start"
            x={box.left - OUT}
            y={(box.top + box.bottom) / 2}
            label="Stretch from the start"
            cursor="ew-resize"
            onPress={(event) => pressEdge(event, ground, "start", chosen, 1)}
          />
          <Edge
            testId="stretch-end"
            x={box.right + OUT}
            y={(box.top + box.bottom) / 2}
            label="Stretch from the end"
            cursor="ew-resize"
            onPress={(event) => pressEdge(event, ground, "end", chosen, 1)}
          />
          {box.bottom - box.top > 3 && (
            <Edge
              testId="scale-top"
              flat
              x={(box.left + box.right) / 2}
              y={box.top - OUT}
              label="Scale about the foot"
              cursor="ns-resize"
              onPress={(event) => pressEdge(event, ground, "top", chosen, box.bottom - box.top)}
            />
          )}
        </g>
      )}
    </>
  );
}

function bounds(ground: Ground, points: { tick: number; value: number }[]) {
  const ys = points.map((point) => yOf(ground, point.value));
  return {
    left: xOf(ground, points[0].tick),
    right: xOf(ground, points[points.length - 1].tick),
    top: Math.min(...ys),
    bottom: Math.max(...ys),
  };
}

interface EdgeProps {
  x: Px;
  y: Px;
  label: string;
  cursor: string;
  testId: string;
  flat?: boolean;
  onPress: (event: React.PointerEvent) => void;
}

function Edge({ x, y, label, cursor, testId, flat = false, onPress }: EdgeProps) {
  const [width, height] = flat ? [18, 6] : [6, 18];
  return (
    <g
      transform={`translate(${x} ${y})`}
      style={{ cursor, touchAction: "none" }}
      onPointerDown={onPress}
      data-testid={testId}
      className="held"
    >
      <title>{label}</title>
      <rect x={-width / 2} y={-height / 2} width={width} height={height} rx={3} className="edge" />
      <rect x={flat ? -22 : -9} y={flat ? -9 : -22} width={flat ? 44 : 18} height={flat ? 18 : 44} fill="transparent" />
    </g>
  );
}
