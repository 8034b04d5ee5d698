import { useEffect, useRef } from "react";
import type { Normalised } from "../../api/types";
import type { Acting } from "../../state/acting";
import { heardNow } from "../../state/heardNow";
import { useTransport } from "../../state/transport";

const START = 135;
const SWEEP = 270;
const RADIUS = 18;

const polar = (degrees: number, radius: number): string => {
  const angle = (degrees * Math.PI) / 180;
  return `${(22 + radius * Math.cos(angle)).toFixed(2)} ${(22 + radius * Math.sin(angle)).toFixed(2)}`;
};
const arc = (from: Normalised, to: Normalised, radius: number): string => {
  const [a, b] = [Math.min(from, to), Math.max(from, to)];
  const large = (b - a) * SWEEP > 180 ? 1 : 0;
  const [start, end] = [polar(START + SWEEP * a, radius), polar(START + SWEEP * b, radius)];
  return `M${start}A${radius} ${radius} 0 ${large} 1 ${end}`;
};

/**
 * The whole way round, 1 long, and a little more at both ends; of its lines dashes are seen, which are only painted
 * when they move.
 */
const round = (radius: number, more = 0) => ({
  d: arc(-more, 1 + more, radius),
  pathLength: 1 + 2 * more,
  fill: "none",
});

/** From one place on the way round to another. */
const stretch = (from: Normalised, to: Normalised) => ({
  strokeDasharray: `${Math.abs(to - from).toFixed(4)} 2`,
  strokeDashoffset: (-Math.min(from, to)).toFixed(4),
});
/** How broad the needle is, as a share of the way round, and where along its length it reaches. */
const NEEDLE = 0.06;
const [NEEDLE_FROM, NEEDLE_TO] = [3, 12];
const needle = (value: Normalised) => stretch(value, value + NEEDLE);

interface Props {
  address: string;
  value: Normalised;
  rest: Normalised;
  origin: Normalised;
  acts: Acting;
  automated: boolean;
  held: boolean;
  /** Whether it is armed, or being written now. */
  arming?: "armed" | "written" | null;
  /** Among what moves, where it is larger than the rest. */
  large?: boolean;
}

/** The dial of a knob. While it plays, its arc and needle follow the playhead by themselves. */
export function KnobFace({ address, value, rest, origin, acts, automated, held, arming, large = false }: Props) {
  const arcLine = useRef<SVGPathElement>(null);
  const needleLine = useRef<SVGPathElement>(null);
  const radius = RADIUS - (acts.lane ? 4 : 0);
  useEffect(() => {
    if (!automated) return;
    return useTransport.subscribe(({ playing }) => {
      const now = playing ? heardNow(address) : null;
      if (now === null) return;
      if (arcLine.current) Object.assign(arcLine.current.style, stretch(origin, now));
      if (needleLine.current) Object.assign(needleLine.current.style, needle(now));
    });
  }, [address, automated, origin]);
  const [restX, restY] = polar(START + SWEEP * rest, RADIUS + 2).split(" ");
  return (
    <svg viewBox="0 0 44 44" className={large ? "knob-face knob-face-large" : "knob-face"} aria-hidden="true">
      <path d={arc(0, 1, RADIUS)} fill="none" stroke="var(--color-base-300)" strokeWidth={4} strokeLinecap="round" />
      {acts.lane && (
        <path
          d={arc(0, 1, RADIUS)}
          className={`solid-line ${acts.lane === "off" ? "off-line" : ""}`}
          strokeWidth={1.6}
        />
      )}
      <path
        ref={arcLine}
        {...round(radius)}
        style={stretch(origin, value)}
        stroke={automated ? "var(--hue)" : "var(--faint)"}
        strokeWidth={4}
        strokeLinecap="round"
      />
      {arming && <path d={arc(0, 1, RADIUS + 2.5)} className={arming === "written" ? "written-ring" : "armed-ring"} />}
      {held && <path d={arc(0, 1, RADIUS - 2)} className="hatched" strokeWidth={9} data-testid={`held-${address}`} />}
      {acts.clip && (
        <path d={arc(0, 1, 13)} className={`stitched ${acts.clip === "off" ? "off-line" : ""}`} strokeWidth={2} />
      )}
      {acts.macro && <path d="M22 44V38M22 41L17 37M22 41L27 37" className="driven-fork" />}
      <path
        ref={needleLine}
        {...round((NEEDLE_FROM + NEEDLE_TO) / 2, NEEDLE / 2)}
        style={needle(value)}
        stroke="currentColor"
        strokeWidth={NEEDLE_TO - NEEDLE_FROM}
      />
      {automated && <circle cx={restX} cy={restY} r={2} fill="var(--faint)" />}
    </svg>
  );
}
