import type { Px } from "../../api/types";
import { type Ground, limitsOf, yOfAmount } from "../../geometry/hit";

/** The two amounts between which an envelope runs, as lines to be dragged; fingers take their grips. */
export function LimitLines({ ground, left, right }: { ground: Ground; left: Px; right: Px }) {
  const limits = limitsOf(ground);
  if (!limits) return null;
  return (["low", "high"] as const).map((end) => {
    const y = yOfAmount(ground, limits[end]);
    return (
      <g key={end} className="limit" data-testid={`${end}-${ground.envelope.id}`}>
        <path d={`M${left} ${y}H${right}`} className="limit-line" />
        <rect x={left + 4} y={y - 3} width={22} height={6} rx={3} className="limit-grip" />
      </g>
    );
  });
}
