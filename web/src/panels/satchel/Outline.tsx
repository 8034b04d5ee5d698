const [WIDE, TALL] = [100, 34];
const EDGE = 3;

/** The curve of a kept move, small. */
export function Outline({ corners, className }: { corners: number[]; className?: string }) {
  const places: string[] = [];
  for (let i = 0; i < corners.length; i += 2)
    places.push(`${corners[i] * WIDE},${EDGE + (1 - corners[i + 1]) * (TALL - 2 * EDGE)}`);
  return (
    <svg viewBox={`0 0 ${WIDE} ${TALL}`} preserveAspectRatio="none" className={className} aria-hidden="true">
      <polyline points={places.join(" ")} className="kept-line" vectorEffect="non-scaling-stroke" />
    </svg>
  );
}
