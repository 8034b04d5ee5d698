import { type PointerEvent, useRef, useState } from "react";
import type { KeptMove } from "../../api/types";
import { findLike, setSatchel } from "../../state/satchel";

const [WIDE, TALL] = [240, 64];
const LENGTH = 3840;

/** A shape drawn by hand as a move. */
function moveOf(line: [number, number][]): KeptMove {
  const [first, last] = [line[0][0], line[line.length - 1][0]];
  const at = (x: number) => Math.round(((x - first) / Math.max(1, last - first)) * LENGTH);
  const points = line.map(([x, y]) => ({ tick: at(x), value: y, shape: "straight" as const }));
  return { name: "a shape", tags: [], role: "set", length_ticks: LENGTH, points };
}

/** A place to draw a shape; the moves most like it come first. */
export function ShapePad() {
  const [line, setLine] = useState<[number, number][]>([]);
  const drawing = useRef<[number, number][] | null>(null);
  const spot = (event: PointerEvent<SVGSVGElement>): [number, number] => {
    const box = event.currentTarget.getBoundingClientRect();
    const share = (place: number, size: number) => Math.min(Math.max(place / size, 0), 1);
    return [share(event.clientX - box.left, box.width) * WIDE, 1 - share(event.clientY - box.top, box.height)];
  };
  const draw = (event: PointerEvent<SVGSVGElement>) => {
    if (!drawing.current) return;
    const [x, y] = spot(event);
    const before = drawing.current.filter((one) => one[0] < x - 1);
    drawing.current = [...before, [x, y]];
    setLine(drawing.current);
  };
  const end = () => {
    const drawn = drawing.current;
    drawing.current = null;
    if (drawn && drawn.length > 2) void findLike(moveOf(drawn));
  };
  const clear = () => {
    setLine([]);
    setSatchel({ near: null });
  };
  return (
    <>
      <svg
        viewBox={`0 0 ${WIDE} ${TALL}`}
        className="shape-pad"
        role="img"
        aria-label="Draw a shape from left to right"
        data-testid="shape-pad"
        onPointerDown={(event) => {
          event.currentTarget.setPointerCapture(event.pointerId);
          drawing.current = [spot(event)];
          setLine(drawing.current);
        }}
        onPointerMove={draw}
        onPointerUp={end}
        onPointerCancel={end}
      >
        <polyline points={line.map(([x, y]) => `${x},${(1 - y) * TALL}`).join(" ")} className="kept-line" />
      </svg>
      <p className="faint flex items-center justify-between text-xs">
        Draw from left to right
        <button type="button" className="underline" onClick={clear}>
          Clear
        </button>
      </p>
    </>
  );
}
