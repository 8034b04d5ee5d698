import type { Px } from "../../api/types";

/** So far above a mouse, and above a finger, which covers what is under it. */
const OVER: Px = 30;
const OVER_FINGER: Px = 56 + 20;

interface Props {
  x: Px;
  y: Px;
  height: Px;
  text: string;
  finger?: boolean;
}

/** A few words beside the hand. */
export function Words({ x, y, height, text, finger = false }: Props) {
  const width = text.length * 6.5 + 16;
  const above = finger || y > 32;
  const top = above ? y - (finger ? OVER_FINGER : OVER) : Math.min(y + 12, height - 22);
  const left = Math.max(2, x - width / 2);
  return (
    <g pointerEvents="none" data-testid="words">
      <rect x={left} y={top} width={width} height={20} rx={6} fill="var(--color-neutral)" />
      <text x={left + width / 2} y={top + 14} textAnchor="middle" fontSize={12} fill="var(--color-neutral-content)">
        {text}
      </text>
    </g>
  );
}
