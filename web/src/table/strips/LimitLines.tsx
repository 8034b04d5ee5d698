import type { Px } from "../../api/types";
import { type Ground, limitsOf, yOfAmount } from "../../geometry/hit";

/** The two amounts between which an envelope runs, as lines to be dragged. */
export function LimitLines({ ground, left, right }: { ground: Ground; left: Px; right: Px }) {
  const limits = limitsOf(ground);
  if (!limits) return null;
  return (["low", "high"] as const).map((end) => (
    <path
      key={end}
      d={`M${left} ${yOfAmount(ground, limits[end])}H${right}`}
      className="limit-line"
      data-testid={`${end}-${ground.envelope.id}`}
    />
  ));
}
