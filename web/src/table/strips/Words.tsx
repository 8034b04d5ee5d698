/** A few words beside the hand, kept inside the strip. */
export function Words({ x, y, height, text }: { x: number; y: number; height: number; text: string }) {
  const width = text.length * 6.3 + 14;
  const above = y > 32;
  const top = above ? y - 30 : Math.min(y + 12, height - 22);
  const left = Math.max(2, x - width / 2);
  return (
    <g pointerEvents="none" data-testid="words">
      <rect x={left} y={top} width={width} height={20} rx={6} fill="var(--color-neutral)" />
      <text x={left + width / 2} y={top + 14} textAnchor="middle" fontSize={11.5} fill="var(--color-neutral-content)">
        {text}
      </text>
    </g>
  );
}
