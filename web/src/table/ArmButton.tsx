import { clsx } from "clsx";
import { isArmed, toggleArm, usePerforming } from "../state/performing";
import { Needle } from "../ui/Needle";

interface Props {
  trackId: string;
  name: string;
  /** In words rather than an icon. */
  spelled?: boolean;
  inRow?: boolean;
}

/** Arms a track: what hands do with its knobs is written while a pass goes on. */
export function ArmButton({ trackId, name, spelled, inRow }: Props) {
  const on = usePerforming(({ armed }) => armed.tracks.includes(trackId));
  const look = spelled
    ? `btn btn-sm grow pointer-coarse:h-11 ${on ? "btn-error" : ""}`
    : clsx("listen", on && "arm-on");
  return (
    <button
      type="button"
      tabIndex={inRow ? -1 : undefined}
      className={look}
      aria-pressed={on}
      aria-label={spelled ? undefined : `Arm ${name}`}
      title="Armed, what hands do with its knobs is written while it records"
      onClick={() => toggleArm("tracks", trackId)}
    >
      <Needle threaded={on} /> {spelled && "Arm"}
    </button>
  );
}

/** How a parameter stands with hands: armed, being written, or neither. */
export const useArming = (address: string): "armed" | "written" | null =>
  usePerforming(({ armed, pass, hands }) => {
    if (!isArmed(armed, address)) return null;
    return pass !== null && hands[address] !== undefined ? "written" : "armed";
  });
